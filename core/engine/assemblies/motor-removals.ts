import type { Removal } from '../description-schema'
import { removal } from './draft'

/** How the inner parts of a brushed motor come off, once one can get at them; minutes and risks judged for an aged example. */

export const springRemoval = (needs: string[][]): Removal =>
  removal({
    minutes: 0.5,
    refitMinutes: 1,
    needs,
    tools: ['tweezers'],
    risk: 0.02,
    replacement: 'order',
    hazards: ['flies-away', 'eyes'],
    wayBack: 'Equal to its fellow; bears in the middle of the brush.',
  })

export const brushRemoval = (needs: string[][]): Removal =>
  removal({
    minutes: 0.3,
    refitMinutes: 0.5,
    needs,
    tools: ['tweezers'],
    risk: 0.01,
    replacement: 'order',
    hazards: ['small-parts'],
    wayBack: 'The same way round: its curve lies on the commutator, its groove in line with the spring.',
  })

export const armatureRemoval = (needs: string[][]): Removal =>
  removal({
    minutes: 3,
    refitMinutes: 5,
    needs,
    tools: ['fine-screwdriver'],
    risk: 0.05,
    replacement: 'rare',
    hazards: ['strong-magnet'],
    wayBack: 'Washers in their order, end play as found or better.',
  })
