import { Problem } from '../problems'

/** Who has which supply: it serves one at a time. */
export class SupplyClaims {
  private readonly holders = new Map<string, string>()
  /** Holders that only keep a supply at hand: asked for it, they give it up. */
  private readonly yielding = new Map<string, () => Promise<void>>()

  /** Says that a holder does nothing with a supply just now, and how it gives it up. */
  atHand(instrumentId: string, giveUp: () => Promise<void>): void {
    this.yielding.set(instrumentId, giveUp)
  }

  /** Says that a holder uses its supply again. */
  inUse(instrumentId: string): void {
    this.yielding.delete(instrumentId)
  }

  /** Has a supply given up that somebody merely keeps at hand; to be asked before it is claimed. */
  async askFor(instrumentId: string): Promise<void> {
    const giveUp = this.yielding.get(instrumentId)
    this.yielding.delete(instrumentId)
    await giveUp?.()
  }

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
      this.yielding.delete(instrumentId)
    }
  }

  holder(instrumentId: string): string | null {
    return this.holders.get(instrumentId) ?? null
  }
}

/** The claims of this process. */
export const supplyClaims = new SupplyClaims()
