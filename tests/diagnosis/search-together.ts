import { linesOf } from './search-record'
import { report } from './search-report'

/** `npm run searches:report -- FILE…`: what the casualties of one or several runs come to together. */
console.log(report(process.argv.slice(2).flatMap(linesOf)))
