import fc from 'fast-check'
import { sql } from 'kysely'
import { expect, test } from 'vitest'
import {
  isCounted,
  statesOf,
  sumSql,
  totalOf,
  totalSql,
  type Count,
  type StateCount,
} from '../../core/counting'
import { recipientStates } from '../../core/delivery'
import { one, openMemory, raw, run } from '..'

const counts = [...Object.keys(statesOf), 'opened', 'clicked', 'left'] as Count[]
const recipient = fc.record({
  state: fc.constantFrom(...recipientStates),
  openedAt: fc.option(fc.nat()),
  clickedAt: fc.option(fc.nat()),
  leftAt: fc.option(fc.nat()),
})

test('what a count means is the same in SQL, of totals and of one recipient', () => {
  const db = openMemory()
  run(db, raw(sql`create table rows (state text, opened_at, clicked_at, left_at)`))
  fc.assert(
    fc.property(fc.array(recipient, { minLength: 1, maxLength: 30 }), (rows) => {
      run(db, raw(sql`delete from rows`))
      for (const row of rows)
        run(
          db,
          raw(
            sql`insert into rows values (${row.state}, ${row.openedAt}, ${row.clickedAt}, ${row.leftAt})`,
          ),
        )
      const totals = Object.fromEntries(
        recipientStates.map((state) => [state, rows.filter((row) => row.state === state).length]),
      )
      const columns = sql.join(
        Object.entries(totals).map(([state, n]) => sql`${n} as ${sql.ref(state)}`),
      )
      for (const count of counts) {
        const expected = rows.filter((row) => isCounted(row, count)).length
        const found = sql<{ n: number }>`select ${sumSql(count)} as n from rows as r`
        expect([count, one(db, raw(found))!.n]).toEqual([count, expected])
        if (!(count in statesOf)) continue
        expect(totalOf(totals, count as StateCount)).toBe(expected)
        const ofTotals = sql<{
          n: number
        }>`select ${totalSql(count as StateCount)} as n from (select ${columns}) as t`
        expect([count, one(db, raw(ofTotals))!.n]).toEqual([count, expected])
      }
    }),
    { numRuns: 50 },
  )
})
