import { quantityKinds, type QuantityKind, type QuantityKindName } from './quantity-kinds'

/** What was typed, understood: the value in SI, and half of nothing more than its last digit says. */
export interface TypedQuantity {
  /** The text exactly as typed. */
  readonly typed: string
  /** Value in the SI unit of the kind (counts as they are). */
  readonly value: number
  /** The step of the last digit typed, in SI: 350 mA → 0.001 A, 0,35 A → 0.01 A. */
  readonly resolution: number
  /** Unit as read, either typed or taken for granted. */
  readonly unit: string
}

export interface TypedQuantityError {
  readonly code: 'empty' | 'not-a-number' | 'two-separators' | 'unknown-unit' | 'negative' | 'too-large' | 'not-whole'
  /** A sentence for the person at the bench. */
  readonly message: string
}

export type TypedQuantityResult =
  { readonly ok: true; readonly quantity: TypedQuantity } | { readonly ok: false; readonly error: TypedQuantityError }

const NUMBER_THEN_UNIT = /^([+\-−]?)\s*([\d.,'  ]*\d[.,]?|[.,]\d+)\s*(.*)$/u

/**
 * Reads a quantity as people type it at a bench: decimal comma or point, the unit with or without a space,
 * or no unit at all (then the kind's own).
 *
 * @param kindName which quantity the box is for
 * @param typed the text of the box
 * @returns the quantity in SI with its resolution, or a sentence saying what is wrong. Never throws.
 * @example
 * readTypedQuantity('current', '180')
 * // { ok: true, quantity: { typed: '180', value: 0.18, resolution: 0.001, unit: 'mA' } }
 */
export function readTypedQuantity(kindName: QuantityKindName, typed: string): TypedQuantityResult {
  const kind: QuantityKind = quantityKinds[kindName]
  const text = typed.trim().replace('−', '-')
  if (text === '') return failure('empty', `No ${kind.name} typed yet.`)

  const match = NUMBER_THEN_UNIT.exec(text)
  if (!match)
    return failure(
      'not-a-number',
      `“${typed.trim()}” is not a number: type the ${kind.name} in digits, for example ${example(kind)}.`,
    )
  const [, sign, digits = '', unitText = ''] = match

  const unit = unitText === '' ? kind.defaultUnit : findUnit(kind, unitText)
  if (unit === undefined) {
    const looksLikeUnit = /^[^\d.,]+$/u.test(unitText)
    return looksLikeUnit
      ? failure(
          'unknown-unit',
          `“${unitText}” is not a unit of ${kind.name}: use ${Object.keys(kind.units).slice(0, 3).join(', ')}.`,
        )
      : failure(
          'not-a-number',
          `“${typed.trim()}” is not a number: type the ${kind.name} in digits, for example ${example(kind)}.`,
        )
  }

  const separators = digits.match(/[.,'  ]/gu) ?? []
  if (separators.length > 1) {
    return failure(
      'two-separators',
      `“${digits}” has more than one separator: type it with one decimal comma or point and no thousands marks.`,
    )
  }
  const plain = digits.replace(/[,'  ]/u, '.')
  const factor = kind.units[unit] as number
  const size = Number(plain) * factor
  if (!Number.isFinite(size)) return failure('not-a-number', `“${typed.trim()}” is not a number.`)
  if (kindName === 'count' && !Number.isInteger(size)) {
    return failure('not-whole', 'A count is a whole number: 0, 1, 2 and so on.')
  }
  if (sign === '-' && size !== 0 && !kind.mayBeNegative) {
    return failure('negative', `A ${kind.name} below zero does not belong here. ${kind.negativeAdvice ?? ''}`.trim())
  }
  if (size > kind.largest) {
    return failure(
      'too-large',
      `${digits} ${unit} is more than a bench like this can see: check the digits and the unit.`,
    )
  }
  const decimals = plain.includes('.') ? plain.length - plain.indexOf('.') - 1 : 0
  return {
    ok: true,
    quantity: {
      typed,
      value: sign === '-' ? -size : size,
      resolution: 10 ** -decimals * factor,
      unit,
    },
  }
}

/** Units are matched as typed first (mA is not MA), then without regard to case where that is unambiguous. */
function findUnit(kind: QuantityKind, text: string): string | undefined {
  const units = Object.keys(kind.units)
  const exact = units.find((unit) => unit === text)
  if (exact) return exact
  const loose = units.filter((unit) => unit.toLowerCase() === text.toLowerCase())
  return loose.length === 1 ? loose[0] : undefined
}

function example(kind: QuantityKind): string {
  return `${kind.name === 'current' ? '180' : '12'} ${kind.defaultUnit}`
}

function failure(code: TypedQuantityError['code'], message: string): TypedQuantityResult {
  return { ok: false, error: { code, message } }
}
