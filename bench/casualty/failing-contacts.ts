import type { EngineDescription } from '../../core/engine/description-schema'
import type { DriveTrain } from '../../core/engine/drive-train'
import type { CasualtyFault } from './faults'
import type { SeededRandom } from './random'

/** Broken share and mean length of a break of a component that comes and goes, where nothing else is said. From memory. */
const USUAL_BROKEN_SHARE = 0.3
const USUAL_BREAK_SECONDS = 0.15

const NONE: readonly string[] = []

interface ByChance {
  readonly component: string
  readonly meanBroken: number
  readonly meanMade: number
  broken: boolean
  until: number
}

interface ByAngle {
  readonly component: string
  readonly ratio: number
  readonly at: number
  readonly width: number
}

/** Contacts that make and break while the engine runs: by chance (film, a loose joint) or at one place of a wheel. */
export class FailingContacts {
  private readonly byChance: ByChance[]
  private readonly byAngle: readonly ByAngle[]
  private latest: readonly string[] = NONE

  constructor(
    description: EngineDescription,
    faults: readonly CasualtyFault[],
    train: DriveTrain,
    private readonly random: SeededRandom,
  ) {
    this.byChance = faults.flatMap((fault) => {
      const loose = fault.kind === 'component' && fault.state === 'intermittent'
      if (fault.kind !== 'film' && !loose) return []
      const share = fault.kind === 'film' ? fault.brokenShare : USUAL_BROKEN_SHARE
      const meanBroken = fault.kind === 'film' ? fault.seconds : USUAL_BREAK_SECONDS
      const broken = random.next() < share
      return [
        {
          component: fault.component,
          meanBroken,
          meanMade: (meanBroken * (1 - share)) / Math.max(share, 1e-6),
          broken,
          until: 0,
        },
      ]
    })
    this.byAngle = faults.flatMap((fault) => {
      if (fault.kind !== 'dirty-patch') return []
      const index = description.wheelSets.findIndex(
        (wheelSet) => wheelSet.left.tread === fault.component || wheelSet.right.tread === fault.component,
      )
      return [{ component: fault.component, ratio: train.wheels[index]?.order ?? 0, at: fault.at, width: fault.width }]
    })
  }

  /** Components that do not touch now, always in the same order. */
  broken(seconds: number, motorAngle: number, dt: number): readonly string[] {
    if (this.byChance.length === 0 && this.byAngle.length === 0) return NONE
    const found: string[] = []
    for (const contact of this.byChance) {
      if (seconds + dt > contact.until) {
        if (contact.until > 0) contact.broken = !contact.broken
        contact.until =
          seconds - Math.log(1 - this.random.next()) * (contact.broken ? contact.meanBroken : contact.meanMade)
      }
      if (contact.broken) found.push(contact.component)
    }
    for (const { component, ratio, at, width } of this.byAngle) {
      const turned = (((motorAngle * ratio - at) % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI)
      if (turned < width) found.push(component)
    }
    // The same list again while nothing changes, so that nothing need be worked out anew.
    if (found.length !== this.latest.length || found.some((id, index) => id !== this.latest[index])) this.latest = found
    return this.latest
  }
}
