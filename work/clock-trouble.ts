const MILLISECONDS_PER_DAY = 86_400_000
const moment = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'long',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
})

/**
 * What is wrong with a clock, in a sentence; empty where they agree within a day. Entries carry the time of the device
 * they are written on, and the order of the book is the shop's.
 */
export function clockTroubleOf({
  device,
  shop,
  latestEntry,
}: {
  device: Date
  shop: Date
  latestEntry: Date | null
}): string {
  if (latestEntry && latestEntry.getTime() - shop.getTime() > MILLISECONDS_PER_DAY) {
    return `The shop’s clock says ${moment.format(shop)}, but the latest entry in the book is of ${moment.format(latestEntry)}: set the clock of the machine the shop runs on first.`
  }
  if (Math.abs(device.getTime() - shop.getTime()) > MILLISECONDS_PER_DAY) {
    return `This device says it is ${moment.format(device)}, the shop ${moment.format(shop)}: set the clock that is wrong first, since what you note carries the time of this device.`
  }
  return ''
}
