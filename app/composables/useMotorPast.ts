import { problemSentence } from '~/stores/problem-sentence'
import type { MotorPast } from '~~/work/motor-history'

/** What the book knows of an engine's motor, fetched once for the engine on the screen; without it the sheet works all the same. */
export function useMotorPast(engineId: () => string) {
  const past = shallowRef<MotorPast | null>(null)
  const failure = ref('')
  watch(
    engineId,
    async (id) => {
      try {
        past.value = await $fetch<MotorPast>(`/api/engines/${id}/motor-past`)
        failure.value = ''
      } catch (error) {
        failure.value = problemSentence(error)
      }
    },
    { immediate: true },
  )
  return { past, failure }
}
