interface Struckable {
  readonly id: string
  readonly entry: { readonly kind: string }
}

/**
 * Of a list that is only ever added to, the entries that stand: neither struck out nor a striking out itself.
 *
 * @example standingRows([{ id: '1', entry: { kind: 'off' } }, { id: '2', entry: { kind: 'struck', entryId: '1' } }]) // []
 */
export function standingRows<R extends Struckable>(rows: readonly R[]): R[] {
  const struck = new Set(
    rows.flatMap(({ entry }) => (entry.kind === 'struck' ? [(entry as { entryId?: string }).entryId] : [])),
  )
  return rows.filter((row) => row.entry.kind !== 'struck' && !struck.has(row.id))
}
