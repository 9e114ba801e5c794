import Sortable from 'sortablejs'

/**
 * A list whose rows can be dragged by their `.grip`; where a row was dropped is told, and the list is left as it was:
 * the new order is drawn from what is kept.
 */
export function useDragOrder(list: Readonly<Ref<HTMLElement | null>>, moved: (from: number, to: number) => void): void {
  let sortable: Sortable | null = null
  watch(
    list,
    (element) => {
      sortable?.destroy()
      sortable = element
        ? Sortable.create(element, {
            handle: '.grip',
            animation: 120,
            // By pointer events everywhere: finger, pen and mouse alike.
            forceFallback: true,
            onEnd: ({ oldIndex, newIndex, item, from }) => {
              if (oldIndex === undefined || newIndex === undefined || oldIndex === newIndex) return
              from.insertBefore(item, from.children[oldIndex + (newIndex < oldIndex ? 1 : 0)] ?? null)
              moved(oldIndex, newIndex)
            },
          })
        : null
    },
    { flush: 'post', immediate: true },
  )
  onBeforeUnmount(() => sortable?.destroy())
}
