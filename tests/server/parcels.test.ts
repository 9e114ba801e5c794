import { v7 as newId } from 'uuid'
import { describe, expect, it } from 'vitest'
import type { ParcelFields } from '../../messages/parcel-entries'
import { listParcels, readParcel } from '../../server/services/read-parcel'
import { readJob } from '../../server/services/read-job'
import { packingLines } from '../../work/packing-lines'
import { send, takeInSomething, useTestBook } from '../support/test-book'

const shop = useTestBook()
const fields = (ownerId: string, more: Partial<ParcelFields> = {}): ParcelFields => ({
  ownerId,
  arrivedOn: '2026-11-20',
  came: 'by post, a wine carton',
  condition: 'One corner crushed',
  items: [],
  packed: [],
  sentBackOn: null,
  remarks: '',
  ...more,
})
const save = (id: string, values: ParcelFields, expectedVersion?: number) =>
  send(shop.book, shop.maren, 'parcel.save', { id, fields: values }, expectedVersion ? { expectedVersion } : {})

/** A parcel with one engine out of it. */
async function unpacked() {
  const { jobId } = await takeInSomething(shop.book, shop.maren)
  const { owner, job } = await readJob(shop.book.database, jobId)
  const id = newId()
  await save(id, fields(owner.id))
  const { complaint, trial, trialAttempts, wanted, moneyLimit, sentimental, consent } = job
  const { conditionOnArrival, dueOn, estimateMinutes, arrivals } = job
  const kept = { complaint, trial, trialAttempts, wanted, moneyLimit, sentimental, consent }
  const more = { conditionOnArrival, dueOn, estimateMinutes, arrivals }
  const edit = (parcelId: string) =>
    send(
      shop.book,
      shop.maren,
      'job.edit',
      { id: jobId, fields: { ...kept, ...more, parcelId } },
      { expectedVersion: job.version },
    )
  return { id, jobId, owner, edit }
}

describe('a parcel with several engines', () => {
  it('lists its engines and loose things as one packing list, borrowed ones marked', async () => {
    const { id, jobId, owner, edit } = await unpacked()
    await edit(id)
    const bag = { id: newId(), what: 'Bag', held: 'seven screws', jobId, borrowed: false }
    const tender = { id: newId(), what: 'Tender', held: '', jobId: null, borrowed: true }
    await save(id, fields(owner.id, { items: [bag, tender], packed: [jobId] }), 1)
    const book = await readParcel(shop.book.database, id)
    const lines = packingLines(book)
    expect(lines.map(({ kind, packed, borrowed }) => [kind, packed, borrowed])).toEqual([
      ['engine', true, false],
      ['loose', false, false],
      ['loose', false, true],
    ])
    expect(lines[1]?.more).toEqual(['held seven screws', expect.stringMatching(/^belongs to job \d+$/)])
    expect(await listParcels(shop.book.database, null)).toMatchObject([{ id, engines: 1, ownerName: owner.name }])
  })

  it('closes when all is packed, or with a word on what stays behind', async () => {
    const { id, jobId, owner, edit } = await unpacked()
    await edit(id)
    const sent = { sentBackOn: '2026-11-30' }
    await expect(save(id, fields(owner.id, sent), 1)).rejects.toThrow(/Not packed yet: job \d+/)
    await save(id, fields(owner.id, { ...sent, remarks: 'Its motor is at the rewinder' }), 1)
    await save(id, fields(owner.id, { ...sent, packed: [jobId] }), 2)
    expect(await listParcels(shop.book.database, null)).toEqual([])
    expect(await listParcels(shop.book.database, owner.id)).toMatchObject([{ id, sentBackOn: '2026-11-30' }])
  })

  it('refuses a thing of a job that came another way, and an engine of another owner', async () => {
    const { id, owner, jobId, edit } = await unpacked()
    const item = { id: newId(), what: 'Bag', held: '', jobId, borrowed: false }
    await expect(save(id, fields(owner.id, { items: [item] }), 1)).rejects.toThrow('did not come in this parcel')
    const stranger = newId()
    await send(shop.book, shop.maren, 'owner.save', {
      id: stranger,
      fields: { name: 'Somebody Else', email: '', phone: '', address: '', notes: '', isShop: false },
    })
    const other = newId()
    await save(other, fields(stranger))
    await edit(id)
    await expect(save(id, fields(stranger), 1)).rejects.toThrow('stays with the owner')
    await expect(edit(other)).rejects.toThrow('different owners')
    await expect(edit(newId())).rejects.toThrow('parcel')
  })
})
