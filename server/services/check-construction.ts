import { checkDescription, type DescriptionProblem } from '../../core/engine/check-description'
import { DESCRIPTION_VERSION, type EngineDescription } from '../../core/engine/description-schema'
import { problemsOf } from '../../messages/validate'

export interface ConstructionCheck {
  /** Empty when it can be brought in; what is not fatal is worth a look. */
  readonly problems: ReadonlyArray<{ readonly place: string; readonly message: string; readonly fatal: boolean }>
}

/** Looks through a construction somebody wants to bring in: its form first, then what the form cannot say. */
export function checkConstruction(candidate: unknown): ConstructionCheck {
  const version = (candidate as { version?: unknown } | null)?.version
  if (typeof version === 'number' && version > DESCRIPTION_VERSION)
    return { problems: checkDescription(candidate as EngineDescription) }
  const form = problemsOf('EngineDescription', candidate)
  if (form.length > 0)
    return {
      problems: form.slice(0, 50).map(({ field, message }) => ({ place: field || 'the file', message, fatal: true })),
    }
  return {
    problems: checkDescription(candidate as EngineDescription).map(({ place, message, fatal }: DescriptionProblem) => ({
      place,
      message,
      fatal,
    })),
  }
}
