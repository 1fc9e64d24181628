import { jobProgress } from '../database/jobs'
import type { JobWork } from './engine'
import { sendLetter, type PlainLetter } from './send-letter'

/** A letter as one person reads it, to be looked at in real mailboxes. */
export interface Copies extends PlainLetter {
  to: string[]
}

/** Sends copies of a letter: nothing in them is counted, and nobody is a recipient by getting one. */
export const sendCopiesJob: JobWork = {
  async carryOut(engine, job) {
    const { to, subject, html, text } = JSON.parse(job.payload) as Copies
    // A copy that went out before the engine was ended is not sent again.
    const sent = await sendLetter(
      engine,
      to.slice(job.done),
      { subject: `Copy: ${subject}`, html, text },
      (many) => jobProgress(engine.db, job.id, job.done + many, to.length).cancel,
    )
    return job.done + sent < to.length
  },
}
