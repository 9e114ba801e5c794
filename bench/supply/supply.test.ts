import { createServer, type Server, type Socket } from 'node:net'
import { afterEach, describe, expect, it } from 'vitest'
import { describeConstruction } from '../../core/knowledge/constructions'
import { Casualty } from '../casualty/casualty'
import { matchesHeader, parseMessage, parseNumber } from './scpi-parser'
import { SimulatedSupply } from './simulated-supply'
import { SupplyClient } from './supply-client'
import { usualCommands } from './supply-commands'
import { SupplyServer } from './supply-server'

describe('the grammar of SCPI-1999 and IEEE 488.2', () => {
  it.each([
    ['MEAS:VOLT?', 'MEASure[:SCALar]:VOLTage[:DC]', true],
    ['measure:voltage:dc?', 'MEASure[:SCALar]:VOLTage[:DC]', true],
    ['MEAS:SCAL:VOLT?', 'MEASure[:SCALar]:VOLTage[:DC]', true],
    ['MEASU:VOLT?', 'MEASure[:SCALar]:VOLTage[:DC]', false],
    ['MEAS:VOLTA?', 'MEASure[:SCALar]:VOLTage[:DC]', false],
    ['VOLT 1', '[SOURce]:VOLTage[:LEVel]', true],
    ['sour:volt:lev 1', '[SOURce]:VOLTage[:LEVel]', true],
    ['SOURC:VOLT 1', '[SOURce]:VOLTage[:LEVel]', false],
    ['*idn?', '*IDN', true],
  ])('%s means %s: %s (6.2.1: short or long form, nothing between)', (line, pattern, expected) => {
    expect(matchesHeader(pattern, parseMessage(line)[0]?.path ?? [])).toBe(expected)
  })

  it('goes on from the branch of the unit before, starts anew after a colon, and common commands leave the branch alone', () => {
    const paths = (line: string): string[] => parseMessage(line).map((unit) => unit.path.join(':'))
    expect(paths('SOUR:VOLT 1;CURR 2')).toEqual(['SOUR:VOLT', 'SOUR:CURR'])
    expect(paths('SOUR:VOLT 1;:OUTP ON')).toEqual(['SOUR:VOLT', 'OUTP'])
    expect(paths('OUTP:POL NORM;*OPC?;WATC 2')).toEqual(['OUTP:POL', '*OPC', 'OUTP:WATC'])
  })

  it.each([
    ['12', 'V', 12],
    ['1.2E1', 'V', 12],
    ['500 mV', 'V', 0.5],
    ['350mA', 'A', 0.35],
    ['.5', 'A', 0.5],
    ['2 KV', 'V', 2000],
    ['3e-3', 'A', 0.003],
  ] as const)('%s is %s %d', (text, unit, value) => {
    expect(parseNumber(text, unit)).toBeCloseTo(value, 12)
  })

  const supply = () => new SimulatedSupply({ clock: () => 0 })
  it.each([
    ['FOO 1', -113],
    ['VOLT', -109],
    ['VOLT 1,2', -108],
    ['VOLT abc', -104],
    ['VOLT 5 A', -131],
    ['VOLT 99', -222],
    ['VOLT -1', -222],
    ['OUTP:POL SIDEWAYS', -224],
    ['VOLT,5', -103],
    ['=', -102],
    ['VOLT 1,', -109],
  ])('%s is answered with error %i', (line, code) => {
    const instrument = supply()
    expect(instrument.execute(line)).toBeNull()
    expect(Number(instrument.execute('SYST:ERR?')?.split(',')[0])).toBe(code)
    expect(instrument.execute('SYST:ERR?')).toBe('0,"No error"')
  })

  it('keeps errors first in, first out, says when it lost some, and *CLS empties them; what stood before an error is done', () => {
    const instrument = supply()
    expect(instrument.execute('VOLT 3;CURR 99;:OUTP ON')).toBeNull()
    expect(instrument.execute('VOLT?;:OUTP?')).toBe('3.000;0')
    expect(instrument.execute('SYST:ERR?')).toBe('-222,"Data out of range"')
    for (let count = 0; count < 30; count++) instrument.execute('FOO')
    const errors = Array.from({ length: 20 }, () => instrument.execute('SYST:ERR?'))
    expect(errors[0]).toBe('-113,"Undefined header"')
    expect(errors[19]).toBe('-350,"Queue overflow"')
    instrument.execute('FOO')
    instrument.execute('*CLS')
    expect(instrument.execute('SYST:ERR?')).toBe('0,"No error"')
  })

  it('*RST leaves it with no volts and its output off', () => {
    const instrument = supply()
    instrument.execute('VOLT 5;:OUTP ON')
    expect(instrument.execute('OUTP?')).toBe('1')
    instrument.execute('*RST')
    expect(instrument.execute('OUTP?;:VOLT?')).toBe('0;0.000')
  })
})

const ridge = describeConstruction('centre-motor')
function onTheBench(leadOhms = 0) {
  let seconds = 0
  const supply = new SimulatedSupply({ clock: () => seconds, leadOhms })
  const casualty = new Casualty(ridge, [], { seed: 4, onStand: true })
  supply.clamp({ casualty, ...ridge.rails })
  return {
    supply,
    casualty,
    wait: (more: number): void => {
      seconds += more
    },
  }
}

describe('the simulated supply with an engine clamped to it', () => {
  it('runs it, reads volts and amps, and runs it the other way with the polarity turned', () => {
    const { supply, casualty, wait } = onTheBench()
    supply.execute('VOLT 12;CURR 2;:OUTP ON')
    wait(1)
    const amps = Number(supply.execute('MEAS:CURR?'))
    expect(amps).toBeGreaterThan(0.2)
    expect(Number(supply.execute('MEAS:VOLT?'))).toBeCloseTo(12, 1)
    expect(casualty.meter.radPerSecond).toBeGreaterThan(900)
    supply.execute('OUTP:POL INV')
    wait(1)
    expect(Number(supply.execute('MEAS:CURR?'))).toBeLessThan(-0.2)
    expect(casualty.meter.radPerSecond).toBeLessThan(-900)
  })

  it('reads at its own terminals: what the leads lose is missing at the engine', () => {
    const { supply, casualty, wait } = onTheBench(2)
    supply.hold(0.2)
    supply.execute('VOLT 6;CURR 2;:OUTP ON')
    wait(0.2)
    const [volts, amps] = (supply.execute('MEAS:BOTH?') ?? '').split(',').map(Number) as [number, number]
    expect(volts - casualty.meter.volts).toBeCloseTo(2 * amps, 2)
  })

  it('turns to constant current at its limit and says so in its questionable status', () => {
    const { supply, wait } = onTheBench()
    supply.hold(0.2)
    supply.execute('VOLT 12;CURR 200mA;:OUTP ON')
    wait(0.5)
    expect(Number(supply.execute('MEAS:CURR?'))).toBeCloseTo(0.2, 2)
    expect(Number(supply.execute('MEAS:VOLT?'))).toBeLessThan(6)
    expect(supply.execute('STAT:QUES:COND?')).toBe('2')
  })

  it('goes off by itself when nobody speaks to it for the time of its watchdog, and stays on while somebody does', () => {
    const { supply, wait } = onTheBench()
    supply.execute('OUTP:WATC 2;:VOLT 6;:OUTP ON')
    for (let count = 0; count < 4; count++) {
      wait(1.5)
      expect(supply.execute('OUTP?')).toBe('1')
    }
    wait(2.1)
    expect(supply.isOn).toBe(false)
  })

  it('records a stretch at its full rate: the ripple of a five-pole armature is in it', () => {
    const { supply, wait } = onTheBench()
    supply.execute('VOLT 12;CURR 2;:OUTP ON')
    wait(1)
    supply.execute('TRAC:REC 0.2')
    const numbers = (supply.execute('TRAC:DATA?') ?? '').split(',').map(Number)
    const amps = numbers.filter((_, index) => index % 2 === 1)
    expect(amps).toHaveLength(2000)
    const mean = amps.reduce((sum, value) => sum + value, 0) / amps.length
    expect(Math.max(...amps) - Math.min(...amps)).toBeGreaterThan(0.05 * mean)
  })

  it('reads nothing once the clamp has fallen off', () => {
    const { supply, wait } = onTheBench()
    supply.execute('VOLT 6;:OUTP ON')
    wait(0.5)
    supply.clamp(null)
    wait(0.5)
    expect(Number(supply.execute('MEAS:CURR?'))).toBe(0)
  })
})

const open: Array<{ close: () => Promise<unknown> }> = []
afterEach(async () => {
  for (const entry of open.splice(0).reverse()) await entry.close()
})

async function served() {
  const bench = onTheBench()
  const server = new SupplyServer(bench.supply)
  const port = await server.listen()
  open.push(server)
  return { ...bench, server, port }
}
async function connected(port: number, more: object = {}): Promise<SupplyClient> {
  const client = await SupplyClient.open({ host: '127.0.0.1', port, patienceMs: 400, ...more })
  open.push(client)
  return client
}
/** An instrument that answers as it is told to. */
async function badInstrument(answer: (line: string, socket: Socket) => void, greeting = ''): Promise<number> {
  const server: Server = createServer((socket) => {
    if (greeting) socket.write(greeting)
    socket.on('error', () => {})
    socket.on('data', (chunk) => answer(chunk.toString(), socket))
  })
  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', resolve)
  })
  open.push({
    close: () =>
      new Promise((resolve) => {
        server.close(resolve)
      }),
  })
  const address = server.address()
  return typeof address === 'object' && address ? address.port : 0
}

describe('the client, over TCP', () => {
  it('sets, switches and reads it, and leaves the output off when it goes', async () => {
    const { port, supply, wait } = await served()
    const client = await connected(port)
    expect(await client.identify()).toContain('Simulated bench supply')
    await client.setVolts(9)
    await client.setAmpsLimit(1.5)
    await client.output(true)
    expect(await client.errors()).toEqual([])
    wait(1)
    expect(await client.measureVolts()).toBeCloseTo(9, 1)
    expect(await client.measureAmps()).toBeGreaterThan(0.1)
    await client.close()
    await expect.poll(() => supply.isOn).toBe(false)
  })

  it('passes on what stands in the error queue', async () => {
    const { port } = await served()
    const client = await connected(port, { commands: { ...usualCommands, setVolts: 'VOLTAGES {}' } })
    await client.setVolts(9)
    expect(await client.errors()).toEqual(['-113,"Undefined header"'])
  })

  it('a second client is told that the supply is taken', async () => {
    const { port } = await served()
    await (await connected(port)).identify()
    await expect((await connected(port)).identify()).rejects.toMatchObject({
      trouble: 'busy',
      message: expect.stringContaining('Somebody else is connected') as string,
    })
  })

  it('says nothing but the question who it is to what is no instrument, and shows its answer cut and plain', async () => {
    const strangers: Array<[string, (line: string, socket: Socket) => void, RegExp]> = [
      [
        'a database that greets',
        (_line, socket) => socket.write('never asked'),
        /is no instrument: it says “J·\S*5\.5\.5-10\.11/,
      ],
      [
        'a web server',
        (_line, socket) => socket.write('HTTP/1.1 400 Bad Request\r\n\r\n'),
        /is no instrument: it says “HTTP\/1\.1 400 Bad Request”/,
      ],
      ['an echo', (line, socket) => socket.write(line), /is no instrument: it says “\*IDN\?”/],
      ['a long line of anything', (_line, socket) => socket.write(`${'\u0007x'.repeat(500)}\n`), /it says “(·x){30}”/],
    ]
    for (const [index, [, answer, sentence]] of strangers.entries()) {
      const heard: string[] = []
      const port = await badInstrument(
        (line, socket) => {
          heard.push(line)
          answer(line, socket)
        },
        index === 0 ? 'J\u0000\u0000\u00005.5.5-10.11-MariaDB' : '',
      )
      await expect(
        SupplyClient.open({ host: '127.0.0.1', port, patienceMs: 400, untilIntroduced: true }),
      ).rejects.toMatchObject({ trouble: 'stranger', message: expect.stringMatching(sentence) as string })
      expect(heard.filter((line) => line !== '*IDN?\n')).toEqual([])
    }
    const { port } = await served()
    const client = await connected(port, { untilIntroduced: true })
    await client.setVolts(3)
    expect(await client.errors()).toEqual([])
  })

  it('a wrong address is said as such', async () => {
    await expect(SupplyClient.open({ host: '127.0.0.1', port: 1, patienceMs: 400 })).rejects.toMatchObject({
      trouble: 'unreachable',
      message: 'Nothing answers at 127.0.0.1:1: is the supply on, and the address right?',
    })
  })

  it('a lost connection ends the question that waits, and the supply turns its output off', async () => {
    const { port, server, supply } = await served()
    const client = await connected(port)
    await client.identify()
    await client.output(true)
    await client.errors()
    server.dropClient()
    await expect(client.measureVolts()).rejects.toMatchObject({ trouble: 'lost' })
    await expect.poll(() => supply.isOn).toBe(false)
  })

  it('closing while a question waits ends that question at once, not after its patience', async () => {
    const heard: string[] = []
    const port = await badInstrument((line) => {
      heard.push(line.trim())
    })
    const client = await connected(port, { patienceMs: 60_000 })
    const told = expect(client.measureVolts()).rejects.toMatchObject({ trouble: 'lost' })
    await expect.poll(() => heard).toContain('MEAS:VOLT?')
    // Off is heard though the question before it is never answered.
    void client.output(false).catch(() => {})
    await expect.poll(() => heard).toContain('OUTP OFF')
    await client.close()
    await told
  })

  it('an answer cut in half, silence and nonsense are told apart, and the output is asked off first', async () => {
    const heard: string[] = []
    const port = await badInstrument((line, socket) => {
      heard.push(line.trim())
      if (line.startsWith('MEAS:VOLT?')) socket.write('1.2')
      if (line.startsWith('MEAS:CURR?')) socket.write('overload!\n')
    })
    await expect((await connected(port)).measureVolts()).rejects.toMatchObject({
      trouble: 'silent',
      message: expect.stringContaining('does not answer “MEAS:VOLT?” within 0.4 s') as string,
    })
    await expect((await connected(port)).measureAmps()).rejects.toMatchObject({
      trouble: 'nonsense',
      message: expect.stringContaining('answers “overload!”') as string,
    })
    await expect.poll(() => heard.filter((line) => line === 'OUTP OFF').length).toBe(2)
  })
})
