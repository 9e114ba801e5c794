/** A copy of what a form holds, free of the screen's reactive wrappers, which the browser's database cannot keep. */
export function plainCopy<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T
}
