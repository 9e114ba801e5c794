/** A step as it stands in a list of them; those without words cannot be struck out. */
interface StandingStep {
  readonly id: string
  readonly entry: { readonly kind: string; readonly words?: string }
}

/**
 * What was done last is taken back by one press, on the key U and wherever a station offers it.
 *
 * @param last the step that would be taken back; undefined where there is none
 * @param strike strikes it out
 * @param before anything that goes with it
 */
export function useUndoLast(
  last: () => StandingStep | undefined,
  strike: (entryId: string, words: string) => Promise<void>,
  before: (step: StandingStep) => void = () => {},
): () => Promise<void> {
  const session = useSessionStore()
  async function undo(): Promise<void> {
    const step = last()
    if (step?.entry.words === undefined || !session.mayWrite) return
    before(step)
    await strike(step.id, step.entry.words)
  }
  useBenchKeys([{ key: 'u', label: 'Undo the last step', run: () => void undo() }])
  return undo
}
