import { spawn } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, relative } from 'node:path'
import { buildWhenChanged } from '../../launcher/build-when-changed'
import { prepareShop } from './test-shop'
import { throwAwayFolder } from './throw-away-folder'

/**
 * Every check. In two lanes side by side, one for each core of a small machine: what looks at the sources alone beside
 * the build, what needs a database, and lint. Then the browser tests, which take both cores: beside anything else a search of
 * the largest machine was late on its screen. The last line counts what passed and what failed, a failed step counting
 * as one. How long things took is told and fails nothing.
 */
const results = mkdtempSync(join(tmpdir(), 'echoppe-results-'))
const preparedShops = throwAwayFolder('prepared')
const began = Date.now()
let passed = 0
let failed = 0
/** Named once more at the end, where whoever reads only that finds them. */
const failures: string[] = []
const fileTimes: Array<{ readonly name: string; readonly seconds: number }> = []

const seconds = (since: number): number => (Date.now() - since) / 1000

/** Runs one program; what it says is printed when it is done, so that the lanes do not talk at once. */
async function run(
  name: string,
  program: string,
  parameters: string[],
  environment: Record<string, string> = {},
): Promise<number> {
  const start = Date.now()
  const said: Buffer[] = []
  const code = await new Promise<number>((resolve) => {
    const child = spawn(program, parameters, {
      stdio: ['ignore', 'pipe', 'pipe'],
      env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', ...environment },
    })
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => said.push(chunk))
    child.once('close', (exit) => resolve(exit ?? 1)).once('error', () => resolve(1))
  })
  console.log(`\n── ${name}`)
  process.stdout.write(Buffer.concat(said))
  console.log(`── ${name}: ${code === 0 ? 'passed' : 'FAILED'} in ${seconds(start).toFixed(0)} s`)
  return code
}

function count(name: string, good: boolean): boolean {
  if (good) passed++
  else {
    failed++
    failures.push(name)
  }
  return good
}

/** A check without tests of its own counts as one. */
async function step(name: string, program: string, parameters: string[]): Promise<void> {
  count(name, (await run(name, program, parameters)) === 0)
}

interface VitestReport {
  readonly numPassedTests: number
  readonly numFailedTests: number
  readonly testResults: ReadonlyArray<{
    readonly name: string
    readonly status: string
    readonly startTime: number
    readonly endTime: number
    readonly assertionResults: ReadonlyArray<{ readonly status: string; readonly fullName: string }>
  }>
}

async function vitest(project: string, parameters: string[] = []): Promise<void> {
  const report = join(results, `${project}.json`)
  const code = await run(`${project} tests`, 'npx', [
    'vitest',
    'run',
    '--project',
    project,
    ...parameters,
    '--reporter=default',
    '--reporter=json',
    `--outputFile.json=${report}`,
  ])
  if (!existsSync(report)) return void count(`${project} tests`, false)
  const counts = JSON.parse(readFileSync(report, 'utf8')) as VitestReport
  for (const file of counts.testResults) {
    const name = relative(process.cwd(), file.name)
    fileTimes.push({ name, seconds: (file.endTime - file.startTime) / 1000 })
    const broken = file.assertionResults.filter(({ status }) => status === 'failed')
    if (broken.length === 0 && file.status === 'failed') failures.push(name)
    for (const { fullName } of broken) failures.push(`${name}: ${fullName}`)
  }
  passed += counts.numPassedTests
  failed += Math.max(counts.numFailedTests, code === 0 ? 0 : 1)
}

interface BrowserSuite {
  readonly file: string
  readonly specs: ReadonlyArray<{
    readonly title: string
    readonly ok: boolean
    readonly tests: ReadonlyArray<{ readonly results: ReadonlyArray<{ readonly duration: number }> }>
  }>
  readonly suites?: readonly BrowserSuite[]
}

const specsOf = (suite: BrowserSuite): BrowserSuite['specs'] => [
  ...suite.specs,
  ...(suite.suites ?? []).flatMap(specsOf),
]

async function browser(): Promise<void> {
  const report = join(results, 'browser.json')
  const code = await run('browser tests', 'npx', ['playwright', 'test', '--reporter=list,json'], {
    PLAYWRIGHT_JSON_OUTPUT_NAME: report,
  })
  if (!existsSync(report)) return void count('browser tests', false)
  const { stats, suites } = JSON.parse(readFileSync(report, 'utf8')) as {
    stats: { expected: number; unexpected: number; flaky: number }
    suites: BrowserSuite[]
  }
  for (const suite of suites) {
    const specs = specsOf(suite)
    fileTimes.push({
      name: `tests/e2e/${suite.file}`,
      seconds: specs
        .flatMap(({ tests }) => tests.flatMap(({ results: runs }) => runs.map(({ duration }) => duration / 1000)))
        .reduce((sum, one) => sum + one, 0),
    })
    for (const { title, ok } of specs) if (!ok) failures.push(`${suite.file}: ${title}`)
  }
  passed += stats.expected
  failed += Math.max(stats.unexpected + stats.flaky, code === 0 ? 0 : 1)
}

async function build(): Promise<boolean> {
  try {
    await buildWhenChanged(process.cwd(), console.log)
    return count('build', true)
  } catch (error) {
    console.error(error instanceof Error ? error.message : error)
    return count('build', false)
  }
}

/** Fills the shops' databases once; whoever opens one copies it. */
async function prepareShops(): Promise<void> {
  const start = Date.now()
  try {
    for (const contents of ['workshop', 'scenario'] as const) await prepareShop(contents, preparedShops)
    process.env.ECHOPPE_PREPARED_SHOPS = preparedShops
    console.log(`\n── shops filled in ${seconds(start).toFixed(0)} s`)
  } catch (error) {
    console.error(error)
    count('shops filled', false)
  }
}

async function lane(name: string, work: () => Promise<void>): Promise<string> {
  const start = Date.now()
  await work()
  return `lane ${name}: ${seconds(start).toFixed(0)} s`
}

await step('validators', 'npm', ['run', '-s', 'validators'])
await step('prepare', 'npx', ['nuxt', 'prepare'])
let built = false
const lanes = await Promise.all([
  lane('of the sources (unit tests, types)', async () => {
    // The build writes anew what lint and types read of it: they come after.
    await vitest('unit', ['--maxWorkers=1'])
    await step('types', 'npx', ['vue-tsc', '--build'])
  }),
  lane('of the application (build, server tests, lint)', async () => {
    built = await build()
    if (built) {
      await prepareShops()
      await vitest('server')
    }
    await step('lint', 'npx', ['eslint', '.', '--max-warnings', '0'])
  }),
])
if (built) lanes.push(await lane('of the browser, alone', browser))
for (const folder of [results, preparedShops]) rmSync(folder, { recursive: true, force: true })
console.log('')
for (const line of lanes) console.log(line)
console.log('the ten slowest files:')
for (const { name, seconds: taken } of fileTimes.sort((one, other) => other.seconds - one.seconds).slice(0, 10))
  console.log(`${taken.toFixed(0).padStart(5)} s  ${name}`)
for (const failure of failures) console.log(`failed: ${failure}`)
console.log(`everything: ${(seconds(began) / 60).toFixed(1)} min`)
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)
