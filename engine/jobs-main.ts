import { beginEngine, doUntilTold } from './begin'
import { runJobs } from './jobs'

/** The process for long work that people ask for (files that are imported, data that is exported); it ends with its engine. */
const { engine, end } = beginEngine('jobs')
if (!process.connected) process.exit()
process.on('disconnect', () => process.exit())
await doUntilTold(engine, [['jobs', runJobs, 200]])
end()
process.disconnect()
