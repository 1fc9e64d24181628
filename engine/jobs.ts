import { liveEngines, finishJob, takeJob, type Job } from '../database/jobs'
import { changeFieldJob } from './change-field'
import { dataOutJob } from './data-out'
import { orderFieldJob } from './order-field'
import { isDiskFull } from '../database/disk'
import { DEAD_AFTER, type Engine, type JobWork, type Work } from './engine'
import { importJobs } from './import'
import { moveActsJob } from './move-acts'
import { moveInsideJob } from './move-inside'
import { sendCopiesJob } from './send-copies'

const kinds: Record<Job['kind'], JobWork> = {
  ...importJobs,
  'change-field': changeFieldJob,
  'order-field': orderFieldJob,
  'send-copies': sendCopiesJob,
  'data-out': dataOutJob,
  'move-acts': moveActsJob,
  'move-inside': moveInsideJob,
}

/** A job at which the process ended so often is not begun again. */
const MOST_DEATHS = 2
const diedTwice =
  'Satchel’s process ended twice at this, so it is not tried again; everything else goes on. Try it in smaller parts, or write to those who run Satchel.'

/** By engine: the job that found no room on the disk. */
const interrupted = new WeakMap<Engine, Job>()

/** Takes the next job and carries it out, or goes on with one that a dead engine left. */
export const runJobs: Work = async (engine) => {
  const { db, id, hostClock, clock, log, settings } = engine
  const job =
    interrupted.get(engine) ??
    takeJob(db, id, [...liveEngines(settings.data, hostClock(), DEAD_AFTER), id])
  if (!job) return false
  interrupted.delete(engine)
  try {
    if (job.deaths >= MOST_DEATHS) throw new Error(diedTwice)
    const cancelled = await kinds[job.kind].carryOut(engine, job)
    finishJob(db, job.id, cancelled ? 'cancelled' : 'done', null, clock())
    log.info({ job: job.kind, cancelled }, 'job ended')
  } catch (error) {
    // Nothing of it is half done; it is gone on with when there is room again.
    if (isDiskFull(error)) {
      interrupted.set(engine, job)
      throw error
    }
    kinds[job.kind].failed?.(engine, job)
    finishJob(db, job.id, 'failed', error instanceof Error ? error.message : String(error), clock())
    log.error({ job: job.kind, error: String(error) }, 'job failed')
  }
  return true
}
