import type { EngineDescription } from '../core/engine/description-schema'
import { motorClassNorms } from '../core/knowledge/motor-class-norms'
import type { EarlierSheet, MotorHistory } from '../core/motor/history-judgement'
import { historyFigureNames, type HistoryFigureName, type MotorFigures } from '../core/motor/motor-figures'
import { noLoadCurrent, keepsTurningDownTo } from '../core/motor/operating-point'
import type { ClassPrior } from '../core/motor/shrunk-spread'
import type { StationId } from '../messages/vocabulary'

/** One sheet of an engine as it is followed over the years. */
export interface FollowedSheet extends EarlierSheet {
  readonly jobId: string
  readonly jobNumber: number
  readonly station: StationId
}

/** What the server knows of a motor's past. */
export interface MotorPast {
  readonly own: readonly FollowedSheet[]
  readonly shop: readonly MotorFigures[]
  /** Null for a machine with a wound field: nothing of this fits it. */
  readonly prior: Readonly<Record<HistoryFigureName, ClassPrior>> | null
  /** Day the present motor was fitted, where the book has it: earlier sheets are another motor's and left out. */
  readonly motorSince: string | null
}

/**
 * What a sound motor of this construction reads before any was measured, and how far such motors lie apart.
 *
 * @param description the engine with its own differences
 * @param nominalVolts at which the free current is meant
 * @returns null without a motor that has a magnet
 */
export function classPriors(
  description: EngineDescription,
  nominalVolts: number,
): Record<HistoryFigureName, ClassPrior> | null {
  const motor = description.motors.find((entry) => entry.field === null)
  const resistance = description.components.find((component) => component.id === motor?.armature)?.ohms
  if (!motor || motor.kind === 'ac-series' || !resistance) return null
  const constants = {
    resistance,
    backEmf: motor.backEmf,
    brushDrop: 0,
    currentAtRest: motor.coulombTorque / motor.backEmf,
    currentPerSpeed: motor.viscousTorque / motor.backEmf,
  }
  const centres: Record<HistoryFigureName, number> = {
    resistance,
    backEmf: motor.backEmf,
    noLoadCurrent: noLoadCurrent(constants, nominalVolts),
    keepsTurningDownTo: keepsTurningDownTo(constants),
  }
  const norms = motorClassNorms[motor.kind]
  return Object.fromEntries(
    historyFigureNames.map((name) => [name, { centre: Math.log(centres[name]), ...norms[name] }]),
  ) as Record<HistoryFigureName, ClassPrior>
}

/** The past as the judgement wants it, up to but without the sheet being judged; null where it fits no figures. */
export function historyBefore({ prior, ...past }: MotorPast, sheetId: string | null): MotorHistory | null {
  if (!prior) return null
  const here = past.own.find((sheet) => sheet.id === sheetId)
  return {
    own: past.own.filter((sheet) => sheet.id !== sheetId && (!here || sheet.at <= here.at)),
    shop: past.shop,
    prior,
  }
}
