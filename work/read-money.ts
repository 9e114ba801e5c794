/** Money as typed ("85", "85.50", "85,50") in the smallest unit; null when it is none. */
export function readMoney(text: string): number | null {
  const match = /^\s*(\d{1,7})(?:[.,](\d{1,2}))?\s*$/.exec(text)
  return match ? Number(match[1]) * 100 + Number((match[2] ?? '').padEnd(2, '0')) : null
}
