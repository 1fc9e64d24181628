import { makeFieldOrder, ownFields } from '../database/people'
import type { JobWork } from './engine'

/** Makes sorting by a field quick, after somebody has sorted by it. */
export const orderFieldJob: JobWork = {
  carryOut({ db }, job) {
    const { key } = JSON.parse(job.payload) as { key: string }
    if (ownFields(db).some((field) => field.key === key && field.retired_at === null))
      makeFieldOrder(db, key)
    return Promise.resolve(false)
  },
}
