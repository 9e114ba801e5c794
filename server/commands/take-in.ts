import { eq, sql } from 'drizzle-orm'
import type { CommandPayload } from '../../messages/commands'
import { counter, engine, engineType, job, owner } from '../db/schema'
import { cannotBeWritten } from '../problems'
import { lockParcelOf } from './in-parcel'
import { jobSearchText } from './job-search-text'
import { saveEngineType } from './save-engine-type'
import { saveOwner } from './save-owner'
import type { Write } from './write'

/** Owner, type and engine found or made, and the job opened, all in one write. */
export async function takeIn(write: Write, payload: CommandPayload<'job.take-in'>) {
  const ownerId = 'existing' in payload.owner ? payload.owner.existing : (await saveOwner(write, payload.owner.made)).id
  const itsOwner = await write.lock(owner, ownerId, 'owner')

  let engineId: string
  if ('existing' in payload.engine) {
    engineId = payload.engine.existing
    await write.lock(engine, engineId, 'engine')
  } else {
    engineId = payload.engine.made.id
    if (!payload.type) throw cannotBeWritten('An engine that is new to the book needs its type.', 'type')
    const typeId =
      'existing' in payload.type ? payload.type.existing : (await saveEngineType(write, payload.type.made)).id
    await write.lock(engineType, typeId, 'engine type')
    const fields = { ...payload.engine.made.fields, ownerId, typeId }
    await write.save(engine, engineId, 'engine', fields)
    write.journal({
      subject: 'engine',
      subjectId: engineId,
      summary: `Engine ${fields.nickname || fields.runningNumber || 'without a name'} entered`,
      after: fields,
    })
  }

  const machine = await write.lock(engine, engineId, 'engine')
  await lockParcelOf(write, payload.job.parcelId, machine.ownerId)
  const [itsType] = await write.transaction.select().from(engineType).where(eq(engineType.id, machine.typeId))
  const number = await nextJobNumber(write)
  const searchText = jobSearchText({
    number,
    complaint: payload.job.complaint,
    nickname: machine.nickname,
    runningNumber: machine.runningNumber,
    maker: itsType?.maker ?? '',
    type: itsType?.name ?? '',
    owner: itsOwner.name,
  })
  await write.save(job, payload.jobId, 'job', {
    ...payload.job,
    number,
    engineId,
    state: 'open',
    station: 'take-in',
    waitingFor: '',
    searchText,
    takenInAt: write.capturedAt,
  })
  write.journal({
    subject: 'job',
    subjectId: payload.jobId,
    jobId: payload.jobId,
    summary: `Job ${number} taken in`,
    after: payload.job,
  })
  return { id: payload.jobId, number, version: 1 }
}

const FIRST_JOB_NUMBER = 1001

async function nextJobNumber(write: Write): Promise<number> {
  await write.transaction
    .insert(counter)
    .values({ name: 'job', value: FIRST_JOB_NUMBER })
    .onDuplicateKeyUpdate({ set: { value: sql`${counter.value} + 1` } })
  const [row] = await write.transaction.select({ value: counter.value }).from(counter).where(eq(counter.name, 'job'))
  return row?.value ?? FIRST_JOB_NUMBER
}
