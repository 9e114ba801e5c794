import { defineStore } from 'pinia'
import { clockTroubleOf } from '~~/work/clock-trouble'
import type { Role } from '~~/messages/vocabulary'

export interface SignedInPerson {
  id: string
  name: string
  role: Role
}
interface SessionAnswer {
  person: SignedInPerson | null
  firstOwnerWanted: boolean
  demo: boolean
  now: string
  latestEntryAt: string | null
}

/** Who is signed in on this device. */
export const useSessionStore = defineStore('session', () => {
  const person = ref<SignedInPerson | null>(null)
  const known = ref(false)
  const firstOwnerWanted = ref(false)
  const demo = ref(false)
  /** What is wrong with a clock, in a sentence; empty where they agree. */
  const clockTrouble = ref('')
  /** True when the server no longer knows the session while somebody was working. */
  const ranOut = ref(false)

  const mayWrite = computed(() => person.value !== null && person.value.role !== 'reader')
  const isOwner = computed(() => person.value?.role === 'owner')

  async function load(): Promise<void> {
    const answer = await $fetch<SessionAnswer>('/api/session')
    person.value = answer.person
    firstOwnerWanted.value = answer.firstOwnerWanted
    demo.value = answer.demo
    known.value = true
    clockTrouble.value = clockTroubleOf({
      device: new Date(),
      shop: new Date(answer.now),
      latestEntry: answer.latestEntryAt === null ? null : new Date(answer.latestEntryAt),
    })
    if (answer.person) ranOut.value = false
  }

  async function signIn(signInName: string, password: string): Promise<void> {
    const answer = await $fetch<{ person: SignedInPerson }>('/api/session', {
      method: 'POST',
      body: { signInName, password },
    })
    person.value = answer.person
    ranOut.value = false
  }

  async function signOut(): Promise<void> {
    await $fetch('/api/session', { method: 'DELETE' })
    person.value = null
  }

  return { person, known, firstOwnerWanted, demo, ranOut, clockTrouble, mayWrite, isOwner, load, signIn, signOut }
})
