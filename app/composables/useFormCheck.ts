import { formProblemsOf } from '~~/messages/form-checks'
import type { FormMessage } from '~~/messages/form-messages'
import type { FormProblem } from '~~/messages/problem-sentences'
import { problemsUnder } from '~~/work/problems-under'

/** Holds what a form would send against its message's schema before it leaves, and says at each field what is wrong. */
export function useFormCheck(name: FormMessage) {
  const found = shallowRef<readonly FormProblem[]>([])
  let checking = false

  /** A second press while the first is still looked at is none. */
  async function fits(message: unknown): Promise<boolean> {
    if (checking) return false
    checking = true
    try {
      found.value = await formProblemsOf(name, message)
    } catch {
      // The check itself cannot be had while the server is away: it will say so when it is back.
      found.value = []
    } finally {
      checking = false
    }
    if (found.value.length === 0) return true
    await nextTick()
    document.querySelector('.v-input--error, .problem')?.scrollIntoView({ block: 'center' })
    return false
  }
  const under = (path: string): Record<string, string> => problemsUnder(found.value, path)
  const forget = (): void => {
    found.value = []
  }
  return { fits, under, forget }
}
