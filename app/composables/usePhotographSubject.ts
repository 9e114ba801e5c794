import type { PhotographSubject } from '~~/messages/photograph-entries'

/** What a photograph taken now would show. */
export interface SubjectInHand {
  readonly about: PhotographSubject | null
  readonly words: string
}

const nothing: SubjectInHand = { about: null, words: '' }
const inHand = shallowRef<SubjectInHand>(nothing)

/** What the hands are at, so that the next photograph stands where it is wanted. */
export const usePhotographSubject = (): Readonly<Ref<SubjectInHand>> => inHand

/** Says what it is, for as long as the calling component is on the screen. */
export function providePhotographSubject(subject: () => SubjectInHand | null): void {
  let mine = nothing
  watchEffect(() => {
    mine = subject() ?? nothing
    inHand.value = mine
  })
  // The screen that comes next may have said its own already.
  onScopeDispose(() => {
    if (inHand.value === mine) inHand.value = nothing
  })
}
