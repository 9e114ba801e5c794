/** A wait at the bench: glue, drying, a run-in. Kept on this device, rings on every screen until it is stopped. */
export interface BenchTimer {
  id: string
  label: string
  endsAt: number
}

const STORAGE_KEY = 'echoppe.timers'
const timers = ref<BenchTimer[]>(readTimers())
const now = ref(Date.now())
const dialogOpen = ref(false)
let clock: ReturnType<typeof setInterval> | undefined
let bell: { context: AudioContext; interval: ReturnType<typeof setInterval> } | undefined

function readTimers(): BenchTimer[] {
  try {
    return JSON.parse(localStorage.getItem(STORAGE_KEY) ?? '[]') as BenchTimer[]
  } catch {
    return []
  }
}

export function useTimers() {
  if (import.meta.client && !clock) {
    clock = setInterval(() => {
      now.value = Date.now()
      ringWhenDue()
    }, 500)
    window.addEventListener('storage', (event) => {
      if (event.key === STORAGE_KEY) timers.value = readTimers()
    })
  }
  const ringing = computed(() => timers.value.filter((timer) => timer.endsAt <= now.value))
  function keep(next: BenchTimer[]): void {
    timers.value = next
    localStorage.setItem(STORAGE_KEY, JSON.stringify(next))
    ringWhenDue()
  }
  return {
    timers,
    ringing,
    now,
    dialogOpen,
    begin: (id: string, label: string, minutes: number) =>
      keep([...timers.value, { id, label, endsAt: Date.now() + minutes * 60_000 }]),
    stop: (id: string) => keep(timers.value.filter((timer) => timer.id !== id)),
  }
}

function ringWhenDue(): void {
  const due = timers.value.some((timer) => timer.endsAt <= Date.now())
  if (due && !bell && typeof AudioContext !== 'undefined') {
    const context = new AudioContext()
    bell = { context, interval: setInterval(() => strike(context), 1500) }
    strike(context)
  } else if (!due && bell) {
    clearInterval(bell.interval)
    void bell.context.close()
    bell = undefined
  }
}

/** One stroke of a small bell. */
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
