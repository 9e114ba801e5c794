/**
 * `v-focus-first` puts the focus into a field once, the moment it appears. The interface library's own
 * autofocus waits for the field to be seen and can pull the focus back from somebody already typing elsewhere.
 */
export default defineNuxtPlugin((nuxtApp) => {
  nuxtApp.vueApp.directive('focus-first', {
    mounted: (element: HTMLElement) => element.querySelector<HTMLElement>('input, textarea')?.focus(),
    getSSRProps: () => ({}),
  })
})
