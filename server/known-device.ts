import { randomUUID } from 'node:crypto'
import type { H3Event, SessionConfig } from 'h3'

/**
 * A device that was signed in once keeps a sealed cookie that says so, by name. Its tries are counted by themselves:
 * whoever else knows the name cannot lock this device out.
 */
const settings = (): SessionConfig => ({
  name: 'echoppe-device',
  password: process.env.NUXT_SESSION_PASSWORD ?? '',
  maxAge: 60 * 60 * 24 * 365,
  cookie: {
    sameSite: 'strict',
    httpOnly: true,
    path: '/api/session',
    secure: process.env.NUXT_SESSION_COOKIE_SECURE !== 'false',
  },
})

interface KnownDevice {
  readonly device: string
  readonly names: readonly string[]
}

const MOST_NAMES = 20

/** The device's number where it was signed in with this name before; null otherwise. */
export async function knownDevice(event: H3Event, name: string): Promise<string | null> {
  const { data } = await getSession<Partial<KnownDevice>>(event, settings())
  return data.device !== undefined && data.names?.includes(name) ? `${data.device}:${name}` : null
}

export async function rememberDevice(event: H3Event, name: string): Promise<void> {
  const { data } = await getSession<Partial<KnownDevice>>(event, settings())
  const names = [name, ...(data.names ?? []).filter((other) => other !== name)].slice(0, MOST_NAMES)
  await updateSession<Partial<KnownDevice>>(event, settings(), { device: data.device ?? randomUUID(), names })
}
