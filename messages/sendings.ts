import type { CommandName, CommandPayload } from './commands'

/** Entries of one lane go out first in, first out: those of one job, of one engine's page, of one owner, of the shop. */
export const WORKSHOP_LANE = 'workshop'
/** A timer waits for nobody's notes. */
const TIMER_LANE = 'timers'
export const engineLane = (engineId: string): string => `engine:${engineId}`
export const ownerLane = (ownerId: string): string => `owner:${ownerId}`

/** How a write waits for the server. */
interface Sending<N extends CommandName> {
  /** What it is, in words for the waiting strip. */
  readonly label: string
  readonly lane: (payload: CommandPayload<N>) => string
  /** What it changes: a later edit of the same follows the version the server gives to the earlier. */
  readonly subject: (payload: CommandPayload<N>) => string
}

const inJob = <N extends CommandName>(label: string, kind: string): Sending<N> => ({
  label,
  lane: (payload) => (payload as { jobId: string }).jobId,
  subject: (payload) => `${kind}:${(payload as { id: string }).id}`,
})
const ofJob = <N extends CommandName>(label: string): Sending<N> => ({
  label,
  lane: (payload) => (payload as { id: string }).id,
  subject: (payload) => `job:${(payload as { id: string }).id}`,
})
const inShop = <N extends CommandName>(label: string, kind: string): Sending<N> => ({
  label,
  lane: () => WORKSHOP_LANE,
  subject: (payload) => `${kind}:${(payload as { id: string }).id}`,
})

export const sendings: { readonly [N in CommandName]: Sending<N> } = {
  'owner.save': { ...inShop('owner', 'owner'), lane: ({ id }) => ownerLane(id) },
  'engine-type.save': inShop('type', 'engine-type'),
  'engine.save': { ...inShop('engine', 'engine'), lane: ({ id }) => engineLane(id) },
  'engine.adapt': { ...inShop('difference', 'engine'), lane: ({ id }) => engineLane(id) },
  'engine-type.adapt': inShop('difference', 'engine-type'),
  'construction.save': inShop('construction', 'construction'),
  'component.save': { ...inShop('component', 'component'), lane: ({ engineId }) => engineLane(engineId) },
  'job.take-in': { label: 'take-in', lane: ({ jobId }) => jobId, subject: ({ jobId }) => `job:${jobId}` },
  'job.edit': ofJob('take-in'),
  'job.move': ofJob('station'),
  'job.hand-back': ofJob('hand-back'),
  'finding.save': inJob('finding', 'finding'),
  'note.add': inJob('note', 'note'),
  'search.add': inJob('step of the search', 'search'),
  'strip.add': inJob('step of taking apart', 'strip'),
  'care.add': inJob('step of cleaning', 'care'),
  'shelf.save': inShop('shelf', 'shelf'),
  // Behind the owner it belongs to, who may be new as well.
  'parcel.save': { ...inShop('parcel', 'parcel'), lane: ({ fields }) => ownerLane(fields.ownerId) },
  'running.book': inShop('running hours', 'running'),
  'photograph.save': inJob('words to a photograph', 'photograph'),
  'timer.begin': { ...inShop('timer', 'timer'), lane: () => TIMER_LANE },
  'timer.stop': { label: 'stopped timer', lane: () => TIMER_LANE, subject: ({ id }) => `timer:${id}` },
  'continuity.add': inJob('continuity reading', 'continuity'),
  'knowledge.learn': inJob('what was learned', 'knowledge'),
  'knowledge.forget': inShop('what was learned', 'knowledge'),
  'type-knowledge.save': inShop('what we know of the type', 'type-knowledge'),
  'part.save': inJob('part', 'part'),
  'sheet.save': inJob('sheet', 'sheet'),
  'reading.add': inJob('reading', 'reading'),
  'reading.strike': inJob('struck reading', 'reading'),
  'meter.save': inShop('meter', 'meter'),
  'instrument.save': inShop('instrument', 'instrument'),
  'workshop.save': { label: 'settings', lane: () => WORKSHOP_LANE, subject: () => 'workshop' },
  'person.save': inShop('account', 'person'),
}

/** A row that is kept, as it was when somebody began to change it. */
export interface ChangedFrom {
  readonly version: number
}

/** What goes with a write into the queue, from the message's own table. */
export interface SendingHead {
  readonly label: string
  readonly lane: string
  readonly subject: string
  readonly expectedVersion?: number
  /** The fields as they were, to tell on a conflict who changed what. */
  readonly base?: Record<string, unknown>
}

/**
 * Lane, subject and label of a write, and the version and fields it was made from.
 *
 * @param from the row it changes, as it was when the change was begun; left out for what is new
 */
export function sendingOf<N extends CommandName>(name: N, payload: CommandPayload<N>, from?: ChangedFrom): SendingHead {
  const { label, lane, subject } = sendings[name]
  const head = { label, lane: lane(payload), subject: subject(payload) }
  if (!from) return head
  const fields = (payload as { fields?: object }).fields ?? {}
  const before = from as unknown as Record<string, unknown>
  const base = Object.fromEntries(
    Object.keys(fields)
      .filter((field) => field in before)
      .map((field) => [field, before[field]]),
  )
  return { ...head, expectedVersion: from.version, base }
}
