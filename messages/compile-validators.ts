import { mkdirSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import Ajv from 'ajv'
import addFormatsModule from 'ajv-formats'
import standaloneCode from 'ajv/dist/standalone/index.js'
import { build } from 'esbuild'
import { EngineDescription } from '../core/engine/description-schema'
import { Knowledge } from '../core/knowledge/knowledge-schema'
import { Instant } from './parts'
import { PhoneAim, PhotographSubject } from './photograph-entries'
import { BenchChange, commandSchemas, Envelope, FirstOwner, NewPassword, SignIn } from './commands'
import { formMessages } from './form-messages'

/**
 * Compiles every message's schema into plain functions, so that neither the browser nor the server builds code
 * at run time and the content-security policy needs no unsafe-eval. Run by `npm run validators`.
 */
// The package is CommonJS: under Node its function is the default of the default.
const writeStandalone = ('default' in standaloneCode ? standaloneCode.default : standaloneCode) as (
  ajv: Ajv,
  exports: Record<string, string>,
) => string

const addFormats = ('default' in addFormatsModule ? addFormatsModule.default : addFormatsModule) as (
  ajv: Ajv,
  options: object,
) => void

const root = join(dirname(fileURLToPath(import.meta.url)), '..')
const target = join(root, 'messages', 'generated')

const schemas: Record<string, object> = {
  Envelope,
  SignIn,
  FirstOwner,
  NewPassword,
  BenchChange,
  Moment: Instant,
  PhotographSubject,
  PhoneAim,
  EngineDescription,
  Knowledge,
  ...commandSchemas,
}
const exportName = (name: string): string => name.replace(/[.-](\w)/g, (_, letter: string) => letter.toUpperCase())

/** Plain functions for the schemas named, and the module around them. */
async function compile(named: Record<string, object>, options: { allErrors: boolean; ending: string; file: string }) {
  const ajv = new Ajv({
    code: { source: true, esm: true, lines: false },
    strict: true,
    discriminator: true,
    allErrors: options.allErrors,
  })
  addFormats(ajv, { formats: ['date', 'date-time'], keywords: true })
  for (const [name, schema] of Object.entries(named)) ajv.addSchema(JSON.parse(JSON.stringify(schema)), name)
  const source = writeStandalone(ajv, Object.fromEntries(Object.keys(named).map((name) => [exportName(name), name])))
  await build({
    stdin: { contents: `${source}\n${options.ending}`, resolveDir: root, loader: 'js' },
    bundle: true,
    format: 'esm',
    minify: true,
    platform: 'neutral',
    mainFields: ['main'],
    outfile: join(target, options.file),
    logLevel: 'error',
  })
}

mkdirSync(join(target, 'form-checks'), { recursive: true })
const byName = Object.keys(schemas)
  .map((name) => `${JSON.stringify(name)}: ${exportName(name)}`)
  .join(', ')
// The first thing that is wrong is enough: naming thousands of them is what an attack would ask for.
await compile(schemas, { allErrors: false, ending: `export const validators = { ${byName} };`, file: 'validators.js' })
writeFileSync(
  join(target, 'validators.d.ts'),
  `import type { ValidateFunction } from 'ajv'
export const validators: Record<${Object.keys(schemas)
    .map((name) => JSON.stringify(name))
    .join(' | ')}, ValidateFunction>
`,
)
// Who fills in a form wants to know of everything at once.
for (const name of formMessages) {
  await compile(
    { [name]: commandSchemas[name] },
    { allErrors: true, ending: `export default ${exportName(name)};`, file: join('form-checks', `${name}.js`) },
  )
  writeFileSync(
    join(target, 'form-checks', `${name}.d.ts`),
    `import type { ValidateFunction } from 'ajv'
declare const validate: ValidateFunction
export default validate
`,
  )
}
