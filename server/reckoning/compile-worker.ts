import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { build } from 'esbuild'

/** Bundles the thread that judges searches into one file, which the server starts by its path: run by `npm run validators`. */
const here = dirname(fileURLToPath(import.meta.url))
await build({
  entryPoints: [join(here, 'search-judge.worker.ts')],
  outfile: join(here, '..', '..', 'messages', 'generated', 'search-judge.worker.mjs'),
  bundle: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  minify: true,
  logLevel: 'error',
})
