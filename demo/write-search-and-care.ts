import { readFileSync } from 'node:fs'
import { v7 as newId } from 'uuid'
import { describeConstruction } from '../core/knowledge/constructions'
import type { CommandPayload } from '../messages/commands'
import { careEntriesOf, earlierCleaning } from './care'
import { demoContinuity } from './continuity'
import type { JobPen } from './job-pen'
import type { DemoJob } from './jobs'
import { demoLearned, demoRunning, searchKey } from './search-steps'
import type { WrittenStep } from './write-searches'

/** The steps of a job's search: what was done, and what was believed when; answers what the job taught, if it did. */
export async function writeSearch(pen: JobPen, demo: DemoJob): Promise<readonly string[] | undefined> {
  const searches = JSON.parse(readFileSync(new URL('./searches.json', import.meta.url), 'utf8')) as Record<
    string,
    { circumstances: string[]; steps: WrittenStep[] } | undefined
  >
  const key = searchKey(pen.engine.key, demo.handBack ? demo.daysAgo : undefined)
  const written = searches[key]
  const add = (entry: object): Promise<unknown> =>
    pen.write('search.add', { id: newId(), jobId: pen.jobId, entry: entry as CommandPayload<'search.add'>['entry'] }, 2)
  const running = demo.handBack ? undefined : demoRunning[pen.engine.key]
  if (running) await add({ kind: 'known', circumstances: ['exhibition'], off: [], missing: [], running })
  if (!written) return demoLearned[key]
  await add({ kind: 'known', circumstances: written.circumstances, off: [], missing: [] })
  for (const step of written.steps)
    await add(
      step.kind === 'confirmed' || step.kind === 'repaired'
        ? { ...step, findingId: step.kind === 'confirmed' ? newId() : null }
        : step,
    )
  if (!demo.handBack) await continuity(pen)
  return written.steps.flatMap((step) => (step.kind === 'confirmed' && step.suspect ? [step.suspect] : []))
}

/** Continuity readings of the engine's job in hand, as typed at the bench. */
async function continuity(pen: JobPen): Promise<void> {
  for (const [point, column, reading] of demoContinuity[pen.engine.key] ?? []) {
    const fields = {
      point,
      column,
      words: `${point.replace('.', ' ').replaceAll('-', ' ')}, ${column}`,
      reading:
        reading === 'closed' || reading === 'open'
          ? { kind: reading }
          : {
              kind: 'ohms' as const,
              quantity: { typed: reading, value: Number.parseFloat(reading), resolution: 0.1, meter: null },
            },
    }
    await pen.write('continuity.add', { id: newId(), jobId: pen.jobId, fields }, 0.2)
  }
}

/** What was cleaned and oiled; in some earlier jobs, how long it took. */
export async function writeCare(pen: JobPen, demo: DemoJob): Promise<void> {
  const { construction, power } = pen.type.fields
  const description = describeConstruction(construction, power)
  const entries = demo.handBack
    ? demo.daysAgo % 5 === 0
      ? earlierCleaning(description, 'oxide', 1.4 + (demo.daysAgo % 3) * 0.3)
      : []
    : careEntriesOf(pen.engine.key, description)
  for (const entry of entries) await pen.write('care.add', { id: newId(), jobId: pen.jobId, entry }, 2)
}

export async function writeFinding(
  pen: JobPen,
  fields: { what: string; place: string; origin: 'arrived' | 'inside' | 'here'; remedy: string },
  state: CommandPayload<'finding.save'>['fields']['state'],
): Promise<string> {
  const id = newId()
  const life =
    state === 'mended'
      ? (['suspected', 'confirmed', 'mended'] as const)
      : state === 'suspected'
        ? (['suspected'] as const)
        : (['suspected', state] as const)
  for (const [step, stepState] of life.entries()) {
    await pen.write('finding.save', { id, jobId: pen.jobId, fields: { ...fields, state: stepState } }, 3, {
      ...(step > 0 ? { expectedVersion: step } : {}),
    })
  }
  return id
}
