import type { PhotographRow, SisterPhotograph } from '~~/messages/book'

/** A photograph of the job on the screen, or of a sister engine: that one is only looked at. */
export type ViewedPhotograph = PhotographRow | SisterPhotograph

const opened = shallowRef<string | null>(null)
const none = (): readonly SisterPhotograph[] => []
const beside = shallowRef(none)

/** The photograph shown large, over any screen of a job. */
export function usePhotographViewer() {
  return {
    opened,
    sisters: computed(() => beside.value()),
    /** @param sisters photographs of sister engines that may be laid over it, those that are still to come as well */
    open: (id: string, sisters: () => readonly SisterPhotograph[] = none) => {
      beside.value = sisters
      opened.value = id
    },
    close: () => {
      opened.value = null
    },
  }
}
