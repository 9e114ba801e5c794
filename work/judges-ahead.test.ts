import { describe, expect, it } from 'vitest'
import { describeConstruction } from '../core/knowledge/constructions'
import { SearchJudge } from './judge-search'
import { JudgesAhead, type Judge } from './judges-ahead'
import { shippedPractice } from './practised-knowledge'
import type { SearchQuestion } from './search-question'

const description = describeConstruction('open-frame')
const asked = (...outcomes: string[]): SearchQuestion => ({
  description,
  practice: shippedPractice,
  context: {},
  history: {
    findings: outcomes.map((outcome, at) => ({ id: `step-${at}`, test: 'track-run', outcome, state: 0 })),
    events: [],
  },
  bench: {},
})
const seen = ({ history }: SearchQuestion): string => history.findings.map(({ outcome }) => outcome).join()
const atOnce = (): Promise<void> => Promise.resolve()

/** Judges that begin when they are asked and are through when the test says so. */
function heldJudges() {
  const begun: Array<{ readonly judge: number; readonly question: string; readonly goOn: () => void }> = []
  let many = 0
  const engage = (): Judge => {
    const judge = many++
    const real = new SearchJudge()
    return {
      async report(question) {
        await new Promise<void>((goOn) => begun.push({ judge, question: seen(question), goOn }))
        return real.report(question)
      },
    }
  }
  const soon = async (): Promise<void> => {
    for (let turn = 0; turn < 50; turn++) await Promise.resolve()
  }
  return { begun, engage, soon }
}

describe('judges that think ahead', () => {
  it('answer at once what one of them is at already, and judge it once', async () => {
    const { begun, engage, soon } = heldJudges()
    const judges = new JudgesAhead(engage, 2)
    const first = judges.ask(asked())
    await soon()
    begun[0]?.goOn()
    await first
    const thinking = judges.thinkAhead([() => asked('stands'), () => asked('runs')], atOnce)
    await soon()
    const answer = judges.ask(asked('stands'))
    await soon()
    expect(begun.map(({ judge, question }) => [judge, question])).toEqual([
      [0, ''],
      [1, 'stands'],
    ])
    begun[1]?.goOn()
    // The findings bear the names of whoever asks.
    expect((await answer)?.suspects.flatMap(({ speaksFor }) => speaksFor.map(({ finding }) => finding))).toContain(
      'step-0',
    )
    await thinking
    await soon()
    expect(begun.length).toBe(2)
    expect(judges.knows(asked())).toBe(true)
    expect(judges.knows(asked('runs'))).toBe(false)
  })

  it('keep one free for what is asked while the other thinks of something else, and drop what was overtaken', async () => {
    const { begun, engage, soon } = heldJudges()
    const judges = new JudgesAhead(engage, 2)
    const first = judges.ask(asked())
    await soon()
    begun[0]?.goOn()
    await first
    void judges.thinkAhead([() => asked('runs')], atOnce)
    await soon()
    const overtaking = judges.ask(asked('stands'))
    await soon()
    expect(begun.map(({ judge, question }) => [judge, question]).slice(1)).toEqual([
      [1, 'runs'],
      [0, 'stands'],
    ])
    const dropped = judges.ask(asked('falters'))
    const newest = judges.ask(asked('falters', 'falters'))
    begun[1]?.goOn()
    begun[2]?.goOn()
    await overtaking
    expect(await dropped).toBeNull()
    await soon()
    expect(begun.map(({ question }) => question).slice(3)).toEqual(['falters,falters'])
    begun[3]?.goOn()
    expect(await newest).not.toBeNull()
  })

  it('one alone never thinks ahead; a thought that fails is said when it is asked for', async () => {
    const alone = heldJudges()
    const single = new JudgesAhead(alone.engage, 1)
    await single.thinkAhead([() => asked()], atOnce)
    expect(alone.begun).toEqual([])

    const judges = new JudgesAhead(() => new SearchJudge(), 2)
    await judges.ask(asked())
    await judges.thinkAhead([() => asked('no such outcome'), () => asked('runs')], atOnce)
    expect(judges.knows(asked('runs'))).toBe(true)
    await expect(judges.ask(asked('no such outcome'))).rejects.toThrow(/no such outcome/)
  })
})
