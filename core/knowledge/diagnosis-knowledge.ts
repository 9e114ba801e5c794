import { KNOWLEDGE_VERSION, type Act, type Fault, type Knowledge, type Remedy, type Test } from './knowledge-schema'
import acts from './diagnosis/acts.json'
import assembly from './diagnosis/faults-assembly.json'
import board from './diagnosis/faults-board.json'
import body from './diagnosis/faults-body.json'
import drive from './diagnosis/faults-drive.json'
import motor from './diagnosis/faults-motor.json'
import outside from './diagnosis/faults-outside.json'
import pickup from './diagnosis/faults-pickup.json'
import runningGear from './diagnosis/faults-running-gear.json'
import sequence from './diagnosis/faults-switch.json'
import wiring from './diagnosis/faults-wiring.json'
import remedies from './diagnosis/remedies.json'
import tests from './diagnosis/tests.json'

/** What ships: chances, minutes and successes are judged from practice unless a row names its source. */
export const diagnosisKnowledge: Knowledge = {
  version: KNOWLEDGE_VERSION,
  unlisted: 0.01,
  acts: acts as Act[],
  faults: [
    outside,
    pickup,
    wiring,
    board,
    motor,
    drive,
    runningGear,
    body,
    sequence,
    assembly,
  ].flat() as unknown as Fault[],
  tests: tests as unknown as Test[],
  remedies: remedies as unknown as Remedy[],
}
