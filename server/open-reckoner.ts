import { theBook } from './open-book'
import { JudgeThread } from './reckoning/judge-thread'
import { Reckoner } from './reckoning/reckoner'

let reckoner: Reckoner | null = null

/** The process's reckoner; null where the start command named no thread for it. */
export function theReckoner(): Reckoner | null {
  const file = process.env.ECHOPPE_SEARCH_JUDGE
  if (!reckoner && file)
    reckoner = new Reckoner(theBook().database, new JudgeThread(file), (line) => console.error(line))
  return reckoner
}

export async function closeTheReckoner(): Promise<void> {
  const open = reckoner
  reckoner = null
  await open?.close()
}
