import { liveEngines } from '../database/heartbeat'
import { finishJob, takeJob, type Job } from '../database/jobs'
import { changeFieldJob } from './change-field'
import { dataOutJob } from './data-out'
import { orderFieldJob } from './order-field'
import { DEAD_AFTER, type JobWork, type Work } from './engine'
import { importJobs } from './import'
import { sendCopiesJob } from './send-copies'

const carryOut: Record<Job['kind'], JobWork> = {
  ...importJobs,
  'change-field': changeFieldJob,
  'order-field': orderFieldJob,
  'send-copies': sendCopiesJob,
  'data-out': dataOutJob,
}

/** Takes the next job and carries it out, or goes on with one that a dead engine left. */
export const runJobs: Work = async (engine) => {
  const { db, id, hostClock, clock, log, settings } = engine
  const job = takeJob(db, id, [...liveEngines(settings.data, hostClock(), DEAD_AFTER), id])
  if (!job) return false
  try {
    const cancelled = await carryOut[job.kind](engine, job)
    finishJob(db, job.id, cancelled ? 'cancelled' : 'done', null, clock())
    log.info({ job: job.kind, cancelled }, 'job ended')
  } catch (error) {
    finishJob(db, job.id, 'failed', error instanceof Error ? error.message : String(error), clock())
    log.error({ job: job.kind, error: String(error) }, 'job failed')
  }
  return true
}
