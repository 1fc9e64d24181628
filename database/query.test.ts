import { expect, test } from 'vitest'
import { all, openMemory, q } from '.'
import { preparedOnce } from './query'

test('a limit stands in the statement as a number, since one that is bound later is planned anew each time', () => {
  const query = q.selectFrom('people').select('id').where('id', '>', 5).limit(3)
  expect(query.compile()).toMatchObject({
    sql: 'select "id" from "people" where "id" > ? limit 3',
    parameters: [5],
  })
  const db = openMemory()
  expect(all(db, query)).toEqual([])
  // What is no whole number is bound, and SQLite refuses it.
  expect(() => all(db, q.selectFrom('people').select('id').limit(1.5))).toThrow(/mismatch/)
  const some = preparedOnce<{ many: number }, { n: number }>((value) =>
    q.selectFrom('sequence_marks').select('upto as n').limit(value('many')),
  )
  expect(some(db).all({ many: 2 })).toEqual([])
})
