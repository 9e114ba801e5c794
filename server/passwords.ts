import { Hash } from '@adonisjs/hash'
import { Scrypt } from '@adonisjs/hash/drivers/scrypt'
import { dictionary } from '@zxcvbn-ts/language-common'
import { cannotBeWritten } from './problems'

/** Password hashing by scrypt, from a library; the salt and cost travel inside the hash. */
const hash = new Hash(new Scrypt({}))

export const hashPassword = (password: string): Promise<string> => hash.make(password)
export const passwordMatches = (passwordHash: string, password: string): Promise<boolean> =>
  hash.verify(passwordHash, password)

/** The list is in order of how often each was found. */
const COMMONEST = new Set((dictionary['passwords-common'] as readonly string[]).slice(0, 10_000))

/** @throws Problem 422 when the password is one that everybody tries first, or the name itself */
export function mustBeOwnPassword(password: string, signInName: string, field: string): void {
  const plain = password.trim().toLowerCase()
  if (COMMONEST.has(plain))
    throw cannotBeWritten('This is one of the ten thousand commonest passwords: take another one.', field)
  if (plain.includes(signInName.toLowerCase()) && plain.length < signInName.length + 8)
    throw cannotBeWritten('A password that is hardly more than the name is soon found: take another one.', field)
}
