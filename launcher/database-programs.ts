import { spawn, type ChildProcess } from 'node:child_process'
import type { DatabaseAddress } from '../server/db/book'
import { findProgram } from './private-mariadb'

/** How MariaDB's own programs reach the book; the password goes by the environment, where only this user sees it. */
export function runDatabaseProgram(
  name: 'mariadb' | 'mariadb-dump',
  address: DatabaseAddress,
  parameters: readonly string[],
  stdio: Array<'ignore' | 'pipe'>,
): { child: ChildProcess; ended: Promise<{ code: number | null; said: string }> } {
  const tls = address.tls
    ? ['--ssl', '--ssl-verify-server-cert', ...(address.tls.caFile ? [`--ssl-ca=${address.tls.caFile}`] : [])]
    : ['--skip-ssl']
  const child = spawn(
    findProgram(name),
    [
      '--no-defaults',
      '--protocol=tcp',
      `--host=${address.host}`,
      `--port=${address.port}`,
      `--user=${address.user}`,
      ...tls,
      ...parameters,
    ],
    { stdio, env: { ...process.env, MYSQL_PWD: address.password } },
  )
  let said = ''
  child.stderr?.setEncoding('utf8').on('data', (chunk: string) => {
    said = `${said}${chunk}`.slice(-2000)
  })
  const ended = new Promise<{ code: number | null; said: string }>((resolve) => {
    child
      .once('close', (code) => resolve({ code, said: said.trim() }))
      .once('error', (error) => resolve({ code: 1, said: error.message }))
  })
  return { child, ended }
}
