import { Problem } from '../problems'

/** Who has which supply: it serves one at a time. */
export class SupplyClaims {
  private readonly holders = new Map<string, string>()

  /**
   * Takes a supply.
   *
   * @param holder what it is used for, to be read after “it is”: `measuring for another sheet`
   * @returns gives it back; doing so twice is nothing
   * @throws Problem 409 when somebody has it
   */
  claim(instrumentId: string, instrumentName: string, holder: string): () => void {
    const taken = this.holders.get(instrumentId)
    if (taken) throw new Problem(409, 'supply-taken', `${instrumentName} is ${taken}: wait for it, or stop it there.`)
    this.holders.set(instrumentId, holder)
    let given = false
    return () => {
      if (given) return
      given = true
      this.holders.delete(instrumentId)
    }
  }

  holder(instrumentId: string): string | null {
    return this.holders.get(instrumentId) ?? null
  }
}

/** The claims of this process. */
export const supplyClaims = new SupplyClaims()
