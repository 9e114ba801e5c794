import { randomUUID } from 'node:crypto'
import { concerns, type Changes, type Whose } from '../messages/changes'

/** One write's changes, with where in the news they stand. */
export interface News {
  readonly at: string
  readonly changes: Changes
}

/** So many writes are kept for those who were away for a moment. */
const KEPT = 500

/**
 * Tells whoever looks at a book what has just been written. Places in it are names of this very run of the server:
 * whoever comes with another, or after too long, is told to read the book again.
 */
export class BookNews {
  private readonly run = randomUUID()
  private count = 0
  private latest: Array<{ count: number; changes: Changes }> = []
  private readonly listeners = new Set<(news: News) => void>()

  /** Where the news stand now: what is read afterwards holds everything told until here. */
  get now(): string {
    return this.place(this.count)
  }

  tell(changes: Changes): void {
    this.count += 1
    this.latest = [...this.latest.slice(-(KEPT - 1)), { count: this.count, changes }]
    for (const listener of this.listeners) listener({ at: this.now, changes })
  }

  /**
   * Hears what concerns a book from a place in the news on.
   *
   * @param missed called where that place is not known any more
   * @returns how to leave
   */
  listen(whose: Whose, since: string, hear: (news: News) => void, missed: (at: string) => void): () => void {
    const from = this.countOf(since)
    if (from === null || from < this.count - this.latest.length) missed(this.now)
    else
      for (const { count, changes } of this.latest)
        if (count > from && concerns(changes, whose)) hear({ at: this.place(count), changes })
    const listener = (news: News): void => {
      if (concerns(news.changes, whose)) hear(news)
    }
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }

  private place(count: number): string {
    return `${this.run}.${count}`
  }

  private countOf(place: string): number | null {
    const [run, count = ''] = place.split('.')
    return run === this.run && /^\d{1,15}$/.test(count) ? Number(count) : null
  }
}

/** The process's news. */
export const bookNews = new BookNews()
