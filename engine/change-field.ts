import { setImmediate as breathe } from 'node:timers/promises'
import {
  mergeField,
  ownFields,
  retypeField,
  type FieldChange,
  rewriteRules,
} from '../database/people'
import { jobProgress } from '../database/jobs'
import type { JobWork } from './engine'

/** Makes a field one of another kind, or joins it to another field. May be begun again at any place. */
export const changeFieldJob: JobWork = {
  async carryOut({ db, clock }, job) {
    const change = JSON.parse(job.payload) as FieldChange
    if (!ownFields(db).some(({ key }) => key === change.key)) return false
    const batches =
      change.do === 'retype'
        ? retypeField(db, change.key, change.kind, clock())
        : mergeField(db, change.key, change.into, clock())
    let done = 0
    for (const _ of batches) {
      jobProgress(db, job.id, ++done, 0)
      await breathe()
    }
    if (change.do === 'merge')
      rewriteRules(
        db,
        (part) =>
          part.kind === 'field' && part.key === change.key ? { ...part, key: change.into } : part,
        (start) =>
          start.is === 'field' && start.field === change.key
            ? { ...start, field: change.into }
            : start.is === 'date' && start.of === change.key
              ? { ...start, of: change.into }
              : start,
      )
    return false
  },
}
