/** What an engine is called at the bench: its nickname, else its number, else its type. */
export function engineName(
  engine: { nickname: string; runningNumber: string },
  type: { maker: string; name: string },
): string {
  return engine.nickname || (engine.runningNumber ? `No. ${engine.runningNumber}` : `${type.maker} ${type.name}`)
}
