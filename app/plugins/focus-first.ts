/**
 * `v-focus-first` puts the focus into a field once, the moment it appears; `v-focus-first="false"` leaves it. The
 * interface library's own autofocus comes a moment late and pulls the focus, and what is being typed, out of the field
 * somebody has gone on to.
 */
export default defineNuxtPlugin((nuxtApp) => {
  nuxtApp.vueApp.directive<HTMLElement, boolean | undefined>('focus-first', {
    mounted(element, { value }) {
      if (value === false) return
      const field = element.querySelector<HTMLElement>('input, textarea')
      if (field) focusOnceShown(field, MOST_FRAMES)
    },
    getSSRProps: () => ({}),
  })
})

/** A dialog keeps what is in it hidden, and so beyond any focus, for its first frames. */
const MOST_FRAMES = 30

function focusOnceShown(field: HTMLElement, frames: number): void {
  const before = document.activeElement
  field.focus()
  if (document.activeElement === field || frames === 0) return
  requestAnimationFrame(() => {
    // Whoever has gone to another field meanwhile stays there.
    const moved = document.activeElement !== before && document.activeElement?.matches('input, textarea')
    if (field.isConnected && !moved) focusOnceShown(field, frames - 1)
  })
}
