import { setImmediate as breathe } from 'node:timers/promises'
import { lastAct, moveSomeActs } from '../database/sending'
import { forgetPayload, jobProgress } from '../database/jobs'
import type { JobWork } from './engine'

/** Makes somebody's opens another's, after they were merged, or nobody's, after they were erased. */
export const moveActsJob: JobWork = {
  async carryOut({ db }, job) {
    const move = JSON.parse(job.payload) as { from: number; to: number }
    let seen: number | null = job.done
    while ((seen = moveSomeActs(db, move, seen)) !== null) {
      jobProgress(db, job.id, seen, lastAct(db))
      await breathe()
    }
    // Whose they were is not to be read here either.
    forgetPayload(db, job.id)
    return false
  },
}
