import agents from './agents.json'
import type { CareKnowledge } from './care-schema'
import materialRules from './material-rules.json'
import methods from './methods.json'
import soils from './soils.json'
import subjectRules from './subject-rules.json'
import ways from './ways.json'

/** What ships: common practice and judgement, the source in every row. */
export const careKnowledge = { soils, agents, methods, materialRules, subjectRules, ways } as CareKnowledge
