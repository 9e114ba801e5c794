import { spawn } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buildWhenChanged } from '../../launcher/build-when-changed'

/** Every check in turn; the last line counts what passed and what failed, a failed step counting as one. */
const results = mkdtempSync(join(tmpdir(), 'echoppe-results-'))
let passed = 0
let failed = 0
/** Named once more at the end, where whoever reads only that finds them. */
const failures: string[] = []

async function run(name: string, program: string, parameters: string[], environment: Record<string, string> = {}): Promise<number> {
  const began = Date.now()
  console.log(`\n── ${name}`)
  const code = await new Promise<number>((resolve) => {
    spawn(program, parameters, { stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', ...environment } })
      .once('exit', (exit) => resolve(exit ?? 1)).once('error', () => resolve(1))
  })
  console.log(`── ${name}: ${code === 0 ? 'passed' : 'FAILED'} in ${((Date.now() - began) / 1000).toFixed(0)} s`)
  return code
}

/** A check without tests of its own counts as one. */
async function step(name: string, program: string, parameters: string[]): Promise<void> {
  if ((await run(name, program, parameters)) === 0) passed++
  else {
    failed++
    failures.push(name)
  }
}

async function vitest(project: string): Promise<void> {
  const report = join(results, `${project}.json`)
  const code = await run(`${project} tests`, 'npx', ['vitest', 'run', '--project', project, '--reporter=default', '--reporter=json', `--outputFile.json=${report}`])
  if (!existsSync(report)) {
    failed++
    return
  }
  const counts = JSON.parse(readFileSync(report, 'utf8')) as { numPassedTests: number; numFailedTests: number; testResults: Array<{ name: string; status: string; assertionResults: Array<{ status: string; fullName: string }> }> }
  for (const file of counts.testResults) {
    const broken = file.assertionResults.filter(({ status }) => status === 'failed')
    if (broken.length === 0 && file.status === 'failed') failures.push(file.name)
    for (const { fullName } of broken) failures.push(`${file.name}: ${fullName}`)
  }
  passed += counts.numPassedTests
  failed += Math.max(counts.numFailedTests, code === 0 ? 0 : 1)
}

async function browser(): Promise<void> {
  const report = join(results, 'browser.json')
  const code = await run('browser tests', 'npx', ['playwright', 'test', '--reporter=list,json'], { PLAYWRIGHT_JSON_OUTPUT_NAME: report })
  if (!existsSync(report)) {
    failed++
    return
  }
  const { stats } = JSON.parse(readFileSync(report, 'utf8')) as { stats: { expected: number; unexpected: number; flaky: number } }
  passed += stats.expected
  failed += Math.max(stats.unexpected + stats.flaky, code === 0 ? 0 : 1)
}

const root = process.cwd()
await step('validators', 'npm', ['run', '-s', 'validators'])
await step('prepare', 'npx', ['nuxt', 'prepare'])
await step('lint', 'npx', ['eslint', '.', '--max-warnings', '0'])
await step('types', 'npx', ['vue-tsc', '--build'])
await vitest('unit')
await vitest('server')
let built = true
try {
  await buildWhenChanged(root, console.log)
  passed++
} catch (error) {
  built = false
  failed++
  console.error(error instanceof Error ? error.message : error)
}
if (built) await browser()
rmSync(results, { recursive: true, force: true })
for (const failure of failures) console.log(`failed: ${failure}`)
console.log(`\n${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)
