import { createInterface } from 'node:readline'
import { Casualty } from '../../bench/casualty/casualty'
import { SimulatedSupply } from '../../bench/supply/simulated-supply'
import { SupplyServer } from '../../bench/supply/supply-server'
import { describeConstruction } from '../../core/knowledge/constructions'

/**
 * A bench supply in a process of its own, as a real one is a box of its own: prints its port, then answers the lines
 * `clamp`, `unclamp` and `on?` with what is so afterwards. Ends when its input closes.
 */
const supply = new SimulatedSupply({ clock: () => performance.now() / 1000 })
const tank = describeConstruction('tank-open')
const clamp = (): void => supply.clamp({ casualty: new Casualty(tank, [], { seed: 3, onStand: true }), ...tank.rails })
clamp()
const server = new SupplyServer(supply)
console.log(String(await server.listen()))
for await (const line of createInterface({ input: process.stdin })) {
  if (line === 'clamp') clamp()
  if (line === 'unclamp') supply.clamp(null)
  console.log(supply.isOn ? 'on' : 'off')
}
await server.close()
