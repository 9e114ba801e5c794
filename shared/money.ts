/** Money in the smallest unit, written with the shop's currency. */
export function showMoney(smallestUnits: number, currency: string): string {
  return new Intl.NumberFormat('en-GB', { style: 'currency', currency }).format(smallestUnits / 100)
}

/** What the minutes used cost at the shop's rate, tax on top. */
export function priceOfMinutes(minutes: number, hourlyRate: number, taxPercent: number): { net: number; tax: number; gross: number } {
  const net = Math.round((minutes / 60) * hourlyRate)
  const tax = Math.round((net * taxPercent) / 100)
  return { net, tax, gross: net + tax }
}
