import { withFindingsNamed, type SearchReport } from '../core/diagnosis/report/search-report'
import type { SearchQuestion } from './search-question'

/** Somebody who judges searches one after the other: a worker of the screen. */
export interface Judge {
  report(question: SearchQuestion, onProgress: (share: number) => void): Promise<SearchReport>
}

/** So many answers are kept; a key taken back asks for one that was given a moment ago. */
const MOST_KNOWN = 24

interface Desk {
  readonly judge: Judge
  /** Settles when what it is at is through; null while it has nothing to do. */
  at: Promise<unknown> | null
}

interface Answer {
  readonly report: SearchReport
  readonly desk: Desk
}

/**
 * Judges of one search, so that what is likely asked next is answered before it is asked: while one has nothing to do
 * but answer, the other thinks ahead. Whoever answered last knows most of the next question and is asked first.
 */
export class JudgesAhead {
  private readonly desks: Desk[] = []
  private readonly known = new Map<string, Answer>()
  private thought: { readonly key: string; readonly answer: Promise<Answer> } | null = null
  private last: Desk | null = null
  private asked = 0

  /**
   * @param start engages a judge; not before there is something to do
   * @param many how many there may be; one alone never thinks ahead
   */
  constructor(
    private readonly start: () => Judge,
    private readonly many: number,
  ) {}

  /** Whether a question would be answered at once. */
  knows(question: SearchQuestion): boolean {
    return this.known.has(unnamed(question).key)
  }

  /**
   * @returns null where something else was asked before its turn came
   * @throws what the judge throws
   */
  async ask(question: SearchQuestion, onProgress: (share: number) => void = () => {}): Promise<SearchReport | null> {
    const mine = ++this.asked
    const { key, plain } = unnamed(question)
    // What was thought ahead in vain is asked for in earnest: then it is said what is wrong.
    if (this.thought?.key === key) await this.thought.answer.catch(() => {})
    let answer = this.known.get(key)
    while (!answer) {
      if (mine !== this.asked) return null
      const desk = this.free()
      if (!desk) await Promise.race(this.desks.map(({ at }) => at))
      else answer = await this.judge(desk, key, plain, onProgress)
    }
    if (mine === this.asked) this.last = answer.desk
    return withFindingsNamed(answer.report, (place) => question.history.findings[Number(place)]?.id ?? '')
  }

  /**
   * Works out what may be asked next, one after the other, until something is asked.
   *
   * @param questions likeliest first
   * @param rest settles when nothing more pressing is to do
   */
  async thinkAhead(questions: ReadonlyArray<() => SearchQuestion>, rest: () => Promise<unknown>): Promise<void> {
    const mine = this.asked
    if (this.many < 2) return
    for (const question of questions) {
      await rest()
      let desk = mine === this.asked ? this.free(this.last) : null
      while (!desk && mine === this.asked) {
        await Promise.race(this.desks.filter((other) => other !== this.last).map(({ at }) => at))
        desk = this.free(this.last)
      }
      if (!desk || mine !== this.asked) return
      const { key, plain } = unnamed(question())
      if (this.known.has(key)) continue
      const thought = { key, answer: this.judge(desk, key, plain, () => {}) }
      this.thought = thought
      await thought.answer.catch(() => {})
      if (this.thought === thought) this.thought = null
    }
  }

  /** Nothing more is thought ahead. */
  stop(): void {
    this.asked += 1
  }

  private free(except: Desk | null = null): Desk | null {
    const free = [this.last, ...this.desks].find((desk) => desk && desk !== except && desk.at === null)
    if (free || this.desks.length >= this.many) return free ?? null
    const desk: Desk = { judge: this.start(), at: null }
    this.desks.push(desk)
    return desk
  }

  private async judge(
    desk: Desk,
    key: string,
    question: SearchQuestion,
    onProgress: (share: number) => void,
  ): Promise<Answer> {
    const answer = desk.judge.report(question, onProgress)
    desk.at = answer.catch(() => {})
    try {
      const known = { report: await answer, desk }
      this.known.set(key, known)
      for (const oldest of [...this.known.keys()].slice(0, -MOST_KNOWN)) this.known.delete(oldest)
      return known
    } finally {
      desk.at = null
    }
  }
}

/** A question whose findings are called by their place: what will be noted has no name yet. */
function unnamed(question: SearchQuestion): { readonly key: string; readonly plain: SearchQuestion } {
  const { history } = question
  const findings = history.findings.map((finding, place) => ({ ...finding, id: String(place) }))
  const key = JSON.stringify({ ...question, history: { ...history, findings } })
  // Through text and back: what goes to a worker is plain.
  return { key, plain: JSON.parse(key) as SearchQuestion }
}
