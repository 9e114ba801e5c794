let bell: { context: AudioContext; interval: ReturnType<typeof setInterval> } | undefined

/** A small bell that strikes for as long as something is due. */
export function useBell(due: Ref<boolean>): void {
  watch(
    due,
    (rings) => {
      if (rings && !bell && typeof AudioContext !== 'undefined') {
        const context = new AudioContext()
        bell = { context, interval: setInterval(() => strike(context), 1500) }
        strike(context)
      } else if (!rings && bell) {
        clearInterval(bell.interval)
        void bell.context.close()
        bell = undefined
      }
    },
    { immediate: true },
  )
}

/** One stroke. */
function strike(context: AudioContext): void {
  const gain = context.createGain()
  gain.gain.setValueAtTime(0.25, context.currentTime)
  gain.gain.exponentialRampToValueAtTime(0.001, context.currentTime + 1.2)
  gain.connect(context.destination)
  for (const frequency of [1318, 2637]) {
    const tone = context.createOscillator()
    tone.frequency.value = frequency
    tone.connect(gain)
    tone.start()
    tone.stop(context.currentTime + 1.2)
  }
}
