import { sql } from 'kysely'
import { all, closeDatabase, openDatabase, raw } from '../database'
import { eventNames } from '../database/people'
import {
  mailingsOfSequence,
  peopleInside,
  readSequences,
  sequenceById,
  standingAt,
  trafficOf,
} from '../database/sequences'
import { bigSequenceFolder } from './big-sequence'
import type { Measure } from './harness'

const ID = 1

/** All that the map of a sequence asks, with a million people inside and five million rounds past, against counting the rows. */
export const sequencePage: Measure = {
  name: 'sequence-page',
  unit: 'ms',
  promise: { atLeast: 10 },
  faster: true,
  runs: 3,
  run() {
    const db = openDatabase(bigSequenceFolder(), { reading: true })
    const notes: Record<string, number> = {}
    const timed = <T>(name: string, work: () => T): T => {
      const began = performance.now()
      const found = work()
      notes[name] = performance.now() - began
      return found
    }
    timed('map', () => sequenceById(db, ID))
    const { inside } = timed('counts', () => readSequences(db))[0]!
    const standing = timed('standing', () => standingAt(db, ID))
    timed('traffic', () => trafficOf(db, ID))
    timed('mails', () => mailingsOfSequence(db, ID))
    timed('people', () => peopleInside(db, ID, 100))
    timed('events', () => eventNames(db))
    const ours = Object.values(notes).reduce((sum, ms) => sum + ms, 0)
    const began = performance.now()
    const counted = all(
      db,
      raw(sql<{ state: string; step: string; n: number }>`
        select state, step, count(*) as n from enrolments where sequence_id = ${ID} group by state, step`),
    )
    notes.raw = performance.now() - began
    const there = counted.filter(({ state }) => state === 'inside')
    if (there.reduce((sum, { n }) => sum + n, 0) !== inside)
      throw new Error('Not as many are inside as there are rows.')
    for (const { step, n } of there)
      if (standing[step] !== n) throw new Error(`Not as many stand at ${step} as there are rows.`)
    closeDatabase(db)
    return Promise.resolve({ ours, reference: notes.raw, notes })
  },
}
