import type { FindingRow } from '~~/messages/book'

const opened = ref(false)
const edited = shallowRef<FindingRow | null>(null)

/** The finding form, opened from anywhere by `F`. */
export function useFindingDialog() {
  return {
    opened,
    edited,
    openNew: () => {
      edited.value = null
      opened.value = true
    },
    openFor: (finding: FindingRow) => {
      edited.value = finding
      opened.value = true
    },
  }
}
