import type { CommandName, CommandPayload } from '../../messages/commands'
import { adaptEngine, adaptEngineType } from './adapt-engine'
import { addCareEntry } from './add-care-entry'
import { addContinuityReading } from './add-continuity-reading'
import { addNote } from './add-note'
import { addReading } from './add-reading'
import { addSearchEntry } from './add-search-entry'
import { addStripEntry } from './add-strip-entry'
import { bookRunning } from './book-running'
import { editJob } from './edit-job'
import { forgetLearned } from './forget-learned'
import { handBackJob } from './hand-back-job'
import { learnFromJob } from './learn-from-job'
import { moveJob } from './move-job'
import { saveComponent } from './save-component'
import { saveConstruction } from './save-construction'
import { saveEngine } from './save-engine'
import { saveEngineType } from './save-engine-type'
import { saveFinding } from './save-finding'
import { saveInstrument } from './save-instrument'
import { saveMeter } from './save-meter'
import { saveOwner } from './save-owner'
import { saveParcel } from './save-parcel'
import { savePart } from './save-part'
import { savePerson } from './save-person'
import { savePhotograph } from './save-photograph'
import { saveSheet } from './save-sheet'
import { saveShelf } from './save-shelf'
import { saveTypeKnowledge } from './save-type-knowledge'
import { saveWorkshop } from './save-workshop'
import { strikeReading } from './strike-reading'
import { takeIn } from './take-in'
import { beginTimer, stopTimer } from './timers'
import type { Write } from './write'

/** Every command by name; what a handler returns is the stored result of the command. */
export const handlers: { readonly [N in CommandName]: (write: Write, payload: CommandPayload<N>) => Promise<unknown> } =
  {
    'owner.save': saveOwner,
    'engine-type.save': saveEngineType,
    'engine.save': saveEngine,
    'engine.adapt': adaptEngine,
    'engine-type.adapt': adaptEngineType,
    'construction.save': saveConstruction,
    'component.save': saveComponent,
    'job.take-in': takeIn,
    'job.edit': editJob,
    'job.move': moveJob,
    'job.hand-back': handBackJob,
    'finding.save': saveFinding,
    'note.add': addNote,
    'search.add': addSearchEntry,
    'strip.add': addStripEntry,
    'care.add': addCareEntry,
    'shelf.save': saveShelf,
    'parcel.save': saveParcel,
    'running.book': bookRunning,
    'photograph.save': savePhotograph,
    'timer.begin': beginTimer,
    'timer.stop': stopTimer,
    'continuity.add': addContinuityReading,
    'knowledge.learn': learnFromJob,
    'knowledge.forget': forgetLearned,
    'type-knowledge.save': saveTypeKnowledge,
    'part.save': savePart,
    'sheet.save': saveSheet,
    'reading.add': addReading,
    'reading.strike': strikeReading,
    'meter.save': saveMeter,
    'instrument.save': saveInstrument,
    'workshop.save': saveWorkshop,
    'person.save': savePerson,
  }
