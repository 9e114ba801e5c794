import { SentenceError, systemErrorCode } from './sentence-error'

/** Runs a command of bin/: what the person can mend is one sentence, anything else shows where it came from. */
export function runCommandLine(main: () => Promise<void>): void {
  main().catch((error: unknown) => {
    const code = systemErrorCode(error)
    if (error instanceof SentenceError) console.error(error.message)
    else if (code === 'ENOSPC')
      console.error('The disk is full: free some space, then start again. What was confirmed before is kept.')
    else if (code?.startsWith('ERR_PARSE_ARGS'))
      console.error(error instanceof Error ? error.message.split('\n')[0] : code)
    else console.error(error)
    process.exit(1)
  })
}
