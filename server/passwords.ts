import { Hash } from '@adonisjs/hash'
import { Scrypt } from '@adonisjs/hash/drivers/scrypt'

/** Password hashing by scrypt, from a library; the salt and cost travel inside the hash. */
const hash = new Hash(new Scrypt({}))

export const hashPassword = (password: string): Promise<string> => hash.make(password)
export const passwordMatches = (passwordHash: string, password: string): Promise<boolean> => hash.verify(passwordHash, password)
