import { X509Certificate } from 'node:crypto'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { isIP } from 'node:net'
import { generate } from 'selfsigned'

export interface OwnCertificate {
  readonly certificateFile: string
  readonly keyFile: string
  /** SHA-256, as browsers show it: compared once on each device. */
  readonly fingerprint: string
}

const MILLISECONDS_PER_DAY = 86_400_000
/** No browser takes a longer one. */
const DAYS = 397
const RENEWED_DAYS_BEFORE = 30

/**
 * The shop's own certificate, for https without anybody else's word. Made anew when it does not name a host the shop
 * answers to, or is about to end; kept otherwise, so that a device that trusts it goes on doing so.
 */
export async function ownCertificate(folder: string, hosts: readonly string[], now: Date): Promise<OwnCertificate> {
  const files = { certificateFile: join(folder, 'certificate.pem'), keyFile: join(folder, 'certificate-key.pem') }
  const standing = readCertificate(files.certificateFile)
  const lastsUntil = now.getTime() + RENEWED_DAYS_BEFORE * MILLISECONDS_PER_DAY
  if (standing && Date.parse(standing.validTo) > lastsUntil && hosts.every((host) => names(standing, host)))
    return { ...files, fingerprint: standing.fingerprint256 }
  const made = await generate([{ name: 'commonName', value: 'Echoppe workshop' }], {
    keyType: 'ec',
    algorithm: 'sha256',
    notBeforeDate: new Date(now.getTime() - MILLISECONDS_PER_DAY),
    notAfterDate: new Date(now.getTime() + DAYS * MILLISECONDS_PER_DAY),
    extensions: [
      { name: 'basicConstraints', cA: false, critical: true },
      { name: 'keyUsage', digitalSignature: true, critical: true },
      { name: 'extKeyUsage', serverAuth: true },
      {
        name: 'subjectAltName',
        altNames: hosts.map((host) => (isIP(host) ? { type: 7, ip: host } : { type: 2, value: host })),
      },
    ],
  })
  writeFileSync(files.keyFile, made.private, { mode: 0o600 })
  writeFileSync(files.certificateFile, made.cert, { mode: 0o600 })
  return { ...files, fingerprint: new X509Certificate(made.cert).fingerprint256 }
}

const names = (certificate: X509Certificate, host: string): boolean =>
  Boolean(isIP(host) ? certificate.checkIP(host) : certificate.checkHost(host))

function readCertificate(file: string): X509Certificate | null {
  try {
    return new X509Certificate(readFileSync(file))
  } catch {
    return null
  }
}
