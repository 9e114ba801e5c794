/**
 * Something unexpected, for whoever runs the shop: what kind of error, which code, where. Its words are left out: a
 * database error carries the rows of the shop in them.
 */
export function logUnexpected(where: string, error: unknown): void {
  const causes: string[] = []
  for (let at: unknown = error; at instanceof Error; at = at.cause) {
    const { code, errno } = at as { code?: unknown; errno?: unknown }
    causes.push([at.constructor.name, code ?? '', errno ?? ''].filter(Boolean).join(' '))
  }
  const places =
    error instanceof Error
      ? (error.stack ?? '')
          .split('\n')
          .filter((line) => /^\s+at /.test(line))
          .slice(0, 12)
          .join('\n')
      : typeof error
  console.error(`${new Date().toISOString()} unexpected at ${where}: ${causes.join(' ← ') || typeof error}\n${places}`)
}

/** A sign-in that was refused: from where and why, and whose account it was; never what was typed. */
export function logRefusedSignIn(
  address: string,
  reason: 'unknown name' | 'wrong password' | 'throttled' | 'wrong code',
  personId: string | null = null,
): void {
  console.error(
    `${new Date().toISOString()} sign-in refused from ${address}: ${reason}${personId ? `, account ${personId}` : ''}`,
  )
}

/** A path without what was asked for in it, and without a calendar’s secret. */
export const pathOnly = (path: string): string => (path.split('?')[0] ?? '').replace(/^\/calendar\/.*/, '/calendar/…')
