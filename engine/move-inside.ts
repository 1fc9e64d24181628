import { setImmediate as breathe } from 'node:timers/promises'
import { jobProgress } from '../database/jobs'
import { moveSomeInside } from '../database/sequences'
import type { JobWork } from './engine'

/** Moves those inside a sequence to the version that was published, where their step is still there. */
export const moveInsideJob: JobWork = {
  async carryOut({ db, clock }, job) {
    const { sequence, version } = JSON.parse(job.payload) as { sequence: number; version: number }
    let seen: number | null = job.done
    while ((seen = moveSomeInside(db, sequence, version, seen, clock())) !== null) {
      if (jobProgress(db, job.id, seen, 0).cancel) return true
      await breathe()
    }
    return false
  },
}
