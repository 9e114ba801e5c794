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
// The first thing that is wrong is enough: naming thousands of them is what an attack would ask for.
const ajv = new Ajv({ code: { source: true, esm: true, lines: false }, strict: true, discriminator: true })
const exportName = (name: string): string => name.replace(/[.-](\w)/g, (_, letter: string) => letter.toUpperCase())
addFormats(ajv, { formats: ['date', 'date-time'], keywords: true })
for (const [name, schema] of Object.entries(schemas)) ajv.addSchema(JSON.parse(JSON.stringify(schema)), name)

const source = writeStandalone(ajv, Object.fromEntries(Object.keys(schemas).map((name) => [exportName(name), name])))
mkdirSync(target, { recursive: true })
const byName = Object.keys(schemas)
  .map((name) => `${JSON.stringify(name)}: ${exportName(name)}`)
  .join(', ')
await build({
  stdin: { contents: `${source}\nexport const validators = { ${byName} };`, resolveDir: root, loader: 'js' },
  bundle: true,
  format: 'esm',
  minify: true,
  platform: 'neutral',
  mainFields: ['main'],
  outfile: join(target, 'validators.js'),
  logLevel: 'error',
})
writeFileSync(
  join(target, 'validators.d.ts'),
  `import type { ValidateFunction } from 'ajv'
export const validators: Record<${Object.keys(schemas)
    .map((name) => JSON.stringify(name))
    .join(' | ')}, ValidateFunction>
`,
)
