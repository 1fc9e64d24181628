import { one, q, run, transact, type Database } from '../query'

/** Does something that lets nobody in: what comes by a file or by joining records is not what somebody did. */
export function hushed<T>(db: Database, work: () => T): T {
  return transact(db, () => {
    if (one(db, q.selectFrom('cues_hushed').select('hushed'))) return work()
    run(db, q.insertInto('cues_hushed').values({ hushed: 1 }))
    try {
      return work()
    } finally {
      run(db, q.deleteFrom('cues_hushed'))
    }
  })
}
