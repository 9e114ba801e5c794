import { streamAnswer } from '../../answer'
import { liveBenches } from '../../measuring/live-benches'

/** All benches in one stream: the last minute first, then every look at a meter. */
export default streamAnswer((_event, _database, push) => liveBenches.listen((message) => push(message)))
