import { v7 as newId } from 'uuid'
import { drawPhotograph } from './draw-photograph'
import { engines } from './engines'
import type { JobPen } from './job-pen'
import { demoStrips, nextPartOf, stripEntriesOf } from './strips'

/** Each further one looks like the last. */
const MOST_STEPS_PHOTOGRAPHED = 3

/** What is off the engine of a job in hand, and how far it is together again. */
export async function writeStrip(pen: JobPen): Promise<void> {
  const { engine } = pen
  const { construction, power } = pen.type.fields
  let pictures = 0
  for (const entry of stripEntriesOf(engine.key, construction, power)) {
    if (entry.kind === 'off' && pictures < MOST_STEPS_PHOTOGRAPHED) await photographPart(pen, entry.part, pictures++)
    await pen.write('strip.add', { id: newId(), jobId: pen.jobId, entry }, 1)
  }
  // What lies before the hands now is photographed too: the sister engine is laid over it.
  const next = nextPartOf(engine.key, construction, power)
  if (next) await photographPart(pen, next, pictures)
}

/** A sister engine was taken apart in an earlier job: its photographs stand at the same steps. */
export async function photographSister(pen: JobPen): Promise<void> {
  const { engine } = pen
  const key = Object.keys(demoStrips).find((other) =>
    engines.some((entry) => entry.key === other && entry.type === engine.type),
  )
  if (!key) return
  const { construction, power } = pen.type.fields
  const parts = stripEntriesOf(key, construction, power).flatMap((entry) => (entry.kind === 'off' ? [entry.part] : []))
  const next = nextPartOf(key, construction, power)
  for (const [ordinal, part] of [...parts.slice(0, 2), ...(next ? [next] : [])].entries())
    await photographPart(pen, part, ordinal)
}

async function photographPart(pen: JobPen, part: string, ordinal: number): Promise<void> {
  const { engine } = pen
  const looks = { ...pen.type.looks, opened: ordinal > 0 }
  const bytes = await drawPhotograph(engine.livery, looks, 1000 + ordinal)
  const id = newId()
  const about = { kind: 'part' as const, part, moment: 'off' as const }
  await pen.photograph({ id, station: 'strip', caption: '', about }, 1, bytes)
  if (ordinal === 1)
    await pen.write(
      'photograph.save',
      {
        id,
        jobId: pen.jobId,
        fields: {
          caption: 'Red lead over the motor, not under it',
          about,
          marks: [
            { shape: 'arrow', x: 0.34, y: 0.42, toX: 0.2, toY: 0.22, words: 'red lead, over' },
            { shape: 'ring', x: 0.52, y: 0.47, toX: 0.56, toY: 0.47, words: 'brush cap' },
          ],
        },
      },
      0,
      { expectedVersion: 1 },
    )
}
