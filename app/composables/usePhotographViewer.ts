import type { PhotographRow, SisterPhotograph } from '~~/messages/book'

/** A photograph of the job on the screen, or of a sister engine: that one is only looked at. */
export type ViewedPhotograph = PhotographRow | SisterPhotograph

const opened = shallowRef<string | null>(null)
const sisters = shallowRef<readonly SisterPhotograph[]>([])

/** The photograph shown large, over any screen of a job. */
export function usePhotographViewer() {
  return {
    opened,
    sisters,
    /** @param beside photographs of sister engines that may be laid over it */
    open: (id: string, beside: readonly SisterPhotograph[] = []) => {
      sisters.value = beside
      opened.value = id
    },
    close: () => {
      opened.value = null
    },
  }
}
