/** One key and what it does, shown on buttons and in the list under `?`. */
export interface BenchKey {
  /** As in KeyboardEvent.key; letters in lower case. */
  readonly key: string
  readonly label: string
  readonly run: () => void
}

/** Numbered when a component is set up: what lies inside another is set up after it, though it is on the screen first. */
const registered = shallowRef<ReadonlyArray<{ owner: number; keys: readonly BenchKey[] }>>([])
const nextActions = shallowRef<ReadonlyArray<{ owner: number; action: NextAction }>>([])
let owners = 0
let listening = false

/** The next thing to do on this screen: the largest button, on Space or the foot pedal's PageDown. */
export interface NextAction {
  readonly label: Ref<string> | ComputedRef<string>
  readonly run: () => void
  /** Undefined while there is nothing here to step back over. */
  readonly back?: (() => void) | undefined
  /** False while what lies outside of it has the word. */
  readonly active?: Ref<boolean> | ComputedRef<boolean>
}

/** Gives keys a meaning while the calling component is on the screen. Inner and later ones win over outer and earlier ones. */
export function useBenchKeys(keys: readonly BenchKey[]): void {
  const owner = ++owners
  onMounted(() => {
    startListening()
    registered.value = [...registered.value, { owner, keys }].sort((first, second) => first.owner - second.owner)
  })
  onBeforeUnmount(() => {
    registered.value = registered.value.filter((entry) => entry.owner !== owner)
  })
}

export function useNextAction(action: NextAction): void {
  const owner = ++owners
  onMounted(() => {
    startListening()
    nextActions.value = [...nextActions.value, { owner, action }].sort((first, second) => first.owner - second.owner)
  })
  onBeforeUnmount(() => {
    nextActions.value = nextActions.value.filter((entry) => entry.owner !== owner)
  })
}

/** All keys that mean something now, the winning one of each. */
export function currentBenchKeys(): ComputedRef<BenchKey[]> {
  return computed(() => {
    const winning = new Map<string, BenchKey>()
    for (const { keys } of registered.value) for (const key of keys) winning.set(key.key, key)
    return [...winning.values()]
  })
}

export function currentNextAction(): ComputedRef<NextAction | null> {
  return computed(nextAction)
}

/** The innermost that has the word; where it does not say how to step back, the one around it does. */
function nextAction(): NextAction | null {
  const speaking = nextActions.value.map((entry) => entry.action).filter((action) => action.active?.value ?? true)
  const inner = speaking.at(-1)
  const back = speaking.findLast((action) => action.back)?.back
  return inner ? { ...inner, ...(back ? { back } : {}) } : null
}

function startListening(): void {
  if (listening) return
  listening = true
  window.addEventListener('keydown', onKey)
}

function onKey(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || event.defaultPrevented || event.isComposing) return
  const target = event.target as HTMLElement | null
  const typing =
    target?.closest('input, textarea, select, [contenteditable="true"], [role="combobox"], [role="listbox"]') !== null
  const dialogOpen = document.querySelector('.v-overlay--active.v-dialog') !== null
  if (dialogOpen) return
  const next = nextAction()
  // The pedal works whatever has the focus; Space only where it does not press or type something else.
  if (event.key === 'PageDown' && next) {
    event.preventDefault()
    return next.run()
  }
  if (typing) return
  const pressesSomething =
    target?.closest('button, a, summary, [role="button"], [role="radio"], [role="checkbox"]') !== null
  if (event.key === ' ' && next && !pressesSomething) {
    event.preventDefault()
    return next.run()
  }
  if (event.key === 'Backspace' && next?.back) {
    event.preventDefault()
    return next.back()
  }
  // Enter presses what has the focus.
  if (event.key === 'Enter' && pressesSomething) return
  const pressed = event.key.length === 1 ? event.key.toLowerCase() : event.key
  for (const { keys } of [...registered.value].reverse()) {
    const match = keys.find((candidate) => candidate.key === pressed)
    if (match) {
      event.preventDefault()
      return match.run()
    }
  }
}
