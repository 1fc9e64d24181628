import { closeDatabase, openDatabase } from '../database'
import {
  countPeople,
  peoplePage,
  peopleColumns,
  type PeopleOrder,
  makeFieldOrder,
} from '../database/people'
import type { Measure } from './harness'
import { millionFolder } from './million'

/** The slowest of the first 100 rows by each column, and of a search by part of an address, against 150 ms. */
export const peopleTable: Measure = {
  name: 'people-table',
  unit: 'ms',
  promise: { atMost: 1 },
  runs: 3,
  run() {
    const folder = millionFolder()
    const writing = openDatabase(folder)
    const began = performance.now()
    makeFieldOrder(writing, 'town')
    const indexed = Math.round(performance.now() - began)
    closeDatabase(writing)
    const db = openDatabase(folder, { reading: true })
    const notes: Record<string, number> = {}
    const timed = (name: string, work: () => { length: number } | number) => {
      work()
      const began = performance.now()
      const found = work()
      notes[name] = Math.round(performance.now() - began)
      if (typeof found !== 'number' && found.length !== 100)
        throw new Error(`${name}: ${found.length} rows`)
    }
    const first = (by: PeopleOrder['by']) => () =>
      peoplePage(db, {}, 100, 0, { by, descending: true })
    for (const column of peopleColumns) timed(column, first(column))
    timed('field', first({ field: 'town' }))
    // Far down: the page after somebody, and one that is jumped to.
    const [far] = peoplePage(db, {}, 1, 900_000, { by: 'joined', descending: true })
    timed('next page after 900,000', () =>
      peoplePage(db, {}, 100, { after: far!.id, offset: 900_001 }),
    )
    timed('jump to 900,000', () => peoplePage(db, {}, 100, 900_000))
    timed('search', () =>
      peoplePage(db, { search: 'er9999' }, 100, 0, { by: 'address', descending: false }),
    )
    // What very many have in common.
    for (const by of ['joined', 'spent'] as const)
      timed(`common by ${by}`, () =>
        peoplePage(db, { search: 'mail.exa' }, 100, 0, { by, descending: true }),
      )
    timed('everyone', () => countPeople(db))
    closeDatabase(db)
    return Promise.resolve({
      ours: Math.max(...Object.values(notes)),
      reference: 150,
      notes: { ...notes, indexed },
    })
  },
}
