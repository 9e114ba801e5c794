/** Money in the smallest unit, written with the shop's currency. */
export function showMoney(smallestUnits: number, currency: string): string {
  return new Intl.NumberFormat('en-GB', { style: 'currency', currency }).format(smallestUnits / 100)
}

/** What minutes cost at the shop's rate, before tax. */
export function priceOfMinutes(minutes: number, hourlyRate: number): number {
  return Math.round((minutes / 60) * hourlyRate)
}

/** What a job comes to: minutes and parts alike are taxed. All in the smallest unit of the currency. */
export function priceOfWork({
  minutes,
  hourlyRate,
  parts,
  taxPercent,
}: {
  minutes: number
  hourlyRate: number
  parts: number
  taxPercent: number
}): { work: number; tax: number; gross: number } {
  const work = priceOfMinutes(minutes, hourlyRate)
  const tax = Math.round(((work + parts) * taxPercent) / 100)
  return { work, tax, gross: work + parts + tax }
}
