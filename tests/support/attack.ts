import { request } from 'node:http'

/** One request as an attacker sends it: whatever method, path, headers and bytes. */
export interface Shot {
  readonly method: string
  readonly path: string
  readonly headers?: Readonly<Record<string, string>>
  readonly body?: Buffer | string
}

export interface Hit {
  readonly status: number
  readonly headers: Readonly<Record<string, string | string[] | undefined>>
  readonly text: string
  readonly milliseconds: number
}

const LONGEST_MS = 30_000

/** Sends it over loopback and waits for the whole answer; a connection the server closed on purpose counts as status 0. */
export function fire(url: string, { method, path, headers = {}, body }: Shot): Promise<Hit> {
  const { hostname, port } = new URL(url)
  const began = performance.now()
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = []
    const done = (status: number, answered: Hit['headers'] = {}): void =>
      resolve({
        status,
        headers: answered,
        text: Buffer.concat(chunks).toString('utf8'),
        milliseconds: performance.now() - began,
      })
    const sent = request(
      {
        hostname,
        port,
        method,
        path,
        headers: { ...headers, ...(body === undefined ? {} : { 'content-length': Buffer.byteLength(body) }) },
        agent: false,
        timeout: LONGEST_MS,
      },
      (answer) => {
        // A stream goes on for ever: that it begins is enough.
        if (String(answer.headers['content-type']).startsWith('text/event-stream')) {
          done(answer.statusCode ?? 0, answer.headers)
          sent.destroy()
          return
        }
        answer
          .on('data', (chunk: Buffer) => chunks.push(chunk))
          .on('end', () => done(answer.statusCode ?? 0, answer.headers))
          .on('error', () => done(answer.statusCode ?? 0, answer.headers))
      },
    )
    sent
      .on('timeout', () => {
        sent.destroy()
        reject(new Error(`${method} ${path} did not answer within ${LONGEST_MS / 1000} s.`))
      })
      .on('error', () => done(0))
    sent.end(body)
  })
}

/** Signs in and gives back the headers of whoever is signed in. */
export async function signedInHeaders(
  url: string,
  signInName: string,
  password: string,
): Promise<Record<string, string>> {
  const hit = await fire(url, {
    method: 'POST',
    path: '/api/session',
    headers: { 'content-type': 'application/json', origin: url },
    body: JSON.stringify({ signInName, password }),
  })
  const cookies = [hit.headers['set-cookie'] ?? []].flat().map((cookie) => cookie.split(';')[0])
  if (hit.status !== 200) throw new Error(`Signing in was refused: ${hit.text}`)
  return { cookie: cookies.join('; '), origin: url, 'content-type': 'application/json' }
}

/** How long a plain question had to wait at worst while something else was being answered, in ms. */
export async function longestHealthAnswer(url: string, until: Promise<unknown>): Promise<number> {
  let going = true
  const over = until.finally(() => {
    going = false
  })
  let longest = 0
  while (going) longest = Math.max(longest, (await fire(url, { method: 'GET', path: '/api/health' })).milliseconds)
  await over
  return longest
}
