import type { PhoneAim } from '~~/messages/photograph-entries'
import { failedStatus, problemSentence } from '~/stores/problem-sentence'

interface OpenedPhone {
  readonly id: string
  readonly token: string
  readonly expiresAt: string
  /** By which other names the shop can be reached. */
  readonly hosts: readonly string[]
}

/**
 * Lets a phone send photographs of a job: it is told what the bench has in hand as that changes, and shut out when
 * the job leaves the screen.
 *
 * @param aim what the next photograph shows
 */
export function usePhone(jobId: Ref<string>, aim: Ref<PhoneAim>) {
  const phone = shallowRef<OpenedPhone | null>(null)
  const failure = ref('')
  const url = computed(() => phone.value && phoneAddress(phone.value))

  async function open(): Promise<void> {
    try {
      phone.value = await $fetch<OpenedPhone>(`/api/jobs/${jobId.value}/phone`, { method: 'POST', body: aim.value })
      failure.value = ''
    } catch (error) {
      failure.value = problemSentence(error)
    }
  }
  async function tell(): Promise<void> {
    if (!phone.value) return
    try {
      await $fetch(`/api/phones/${phone.value.id}`, { method: 'PUT', body: aim.value })
    } catch (error) {
      // Its ten minutes are over: a new code is asked for when it is wanted. One that did not arrive is let be.
      if (failedStatus(error) === 401) phone.value = null
    }
  }
  function shut(): void {
    if (phone.value) void $fetch(`/api/phones/${phone.value.id}`, { method: 'DELETE', keepalive: true }).catch(() => {})
    phone.value = null
  }
  watch(aim, () => void tell())
  watch(jobId, shut)
  onBeforeUnmount(shut)
  // A closed tab is left as well.
  useEventListener(window, 'pagehide', shut)
  return { phone, url, failure, open }
}

/** Where the phone finds the shop; null where the shop listens on this machine alone. The token stands behind the #. */
function phoneAddress({ token, hosts }: OpenedPhone): string | null {
  const { hostname, origin, protocol, port } = window.location
  const loopback = ['localhost', '127.0.0.1', '[::1]'].includes(hostname)
  const [host] = hosts
  if (loopback && !host) return null
  return `${loopback ? `${protocol}//${host}${port ? `:${port}` : ''}` : origin}/phone#${token}`
}
