import type { CommandPayload } from '../../messages/commands'
import { finding, photograph } from '../db/schema'
import { notInTheBook } from '../problems'
import type { Write } from './write'

/** What is said of a photograph: its caption, what it shows, rings and arrows on it. */
export async function savePhotograph(write: Write, { id, jobId, fields }: CommandPayload<'photograph.save'>) {
  await write.lock(photograph, id, 'photograph', { jobId })
  if (fields.about?.kind === 'finding')
    await write.mustNotLieElsewhere(finding, fields.about.finding, 'finding', { jobId })
  const { before, version } = await write.save(photograph, id, 'photograph', fields, { jobId })
  if (!before) throw notInTheBook('photograph')
  const said = ({ caption, about, marks }: Pick<typeof before, 'caption' | 'about' | 'marks'>) => ({
    caption,
    about,
    marks,
  })
  write.journal({
    subject: 'photograph',
    subjectId: id,
    jobId,
    summary: fields.caption ? `Said of a photograph: ${fields.caption}` : 'Said of a photograph',
    before: said(before),
    after: fields,
  })
  return { id, version }
}
