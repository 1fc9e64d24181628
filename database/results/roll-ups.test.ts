import fc from 'fast-check'
import { sql } from 'kysely'
import { beforeEach, expect, test } from 'vitest'
import { makeAccount } from '../../demo/account'
import { all, openMemory, q, raw, run, type Database } from '..'
import { actRecorder, applyVerdict, unjudgedActs } from '../sending'
import { erasePerson, mergePeople } from '../people'

const now = Date.UTC(2026, 10, 23, 9, 40)
let db: Database
beforeEach(async () => {
  db = openMemory()
  await makeAccount(db, { seed: 8, size: 120, now, passwordHash: '!' })
})

/** The roll-ups beside the same counted from the rows; what has come to nothing is left out. */
function expectSame() {
  const kept = all(db, raw(sql`select * from mailing_providers where recipients > 0`))
  const counted = all(
    db,
    raw(sql`
      select r.mailing_id, coalesce(p.domain, '') as domain, count(*) as recipients,
        sum(r.state in ('accepted', 'complained')) as delivered, count(r.opened_at) as opened,
        count(r.clicked_at) as clicked, count(r.left_at) as left_list,
        sum(r.state in ('bounced', 'failed')) as bounced, sum(r.state = 'complained') as complained,
        sum(r.state = 'deferred') as deferred
      from recipients as r left join people as p on p.id = r.person_id group by 1, 2 order by 1, 2`),
  )
  expect(kept).toEqual(counted)
  const links = all(db, raw(sql`select * from mailing_link_totals where people > 0`))
  expect(links).toEqual(
    all(
      db,
      raw(sql`
        select mailing_id, link as no, count(distinct person_id) as people, count(*) as clicks from acts
        where kind = 'click' and verdict = 'human' group by 1, 2 order by 1, 2`),
    ),
  )
}

test('what is rolled up by provider and link is what the rows say, whatever happens to them', () => {
  expectSame()
  const people = all(db, q.selectFrom('people').select('id')).map(({ id }) => id)
  const mailings = all(
    db,
    q
      .selectFrom('mailings')
      .select('id')
      .where('state', '=', 'sent')
      .orderBy('id', 'desc')
      .limit(4),
  ).map(({ id }) => id)
  const one = fc.constantFrom(...people)
  const mailing = fc.constantFrom(...mailings)
  const happening = fc.oneof(
    fc.record({
      kind: fc.constant('click' as const),
      mailing,
      one,
      link: fc.nat(3),
      scanner: fc.boolean(),
    }),
    fc.record({
      kind: fc.constant('state' as const),
      mailing,
      one,
      state: fc.constantFrom('accepted', 'bounced', 'failed', 'complained', 'deferred', 'dropped'),
    }),
    fc.record({ kind: fc.constant('leaves' as const), mailing, one, at: fc.option(fc.nat()) }),
    fc.record({
      kind: fc.constant('moves' as const),
      one,
      domain: fc.constantFrom('a.example', 'b.example'),
    }),
    fc.record({ kind: fc.constant('merge' as const), one, other: one }),
    fc.record({ kind: fc.constant('erase' as const), one }),
    fc.record({ kind: fc.constant('planned' as const), mailing, one }),
  )
  const record = actRecorder(db)
  fc.assert(
    fc.property(fc.array(happening, { minLength: 1, maxLength: 12 }), (happenings) => {
      for (const it of happenings) {
        if (it.kind === 'click') {
          const act = {
            mailingId: it.mailing,
            personId: it.one,
            round: 0,
            kind: 'click' as const,
            link: it.link,
          }
          record([{ ...act, at: now, agent: 'SailMail/4.1', method: 'GET' }])
          for (const open of unjudgedActs(db, now + 1, 10))
            applyVerdict(db, open, it.scanner ? 'machine' : 'human')
        } else if (it.kind === 'state' || it.kind === 'leaves')
          run(
            db,
            q
              .updateTable('recipients')
              .set(it.kind === 'state' ? { state: it.state as 'accepted' } : { left_at: it.at })
              .where('mailing_id', '=', it.mailing)
              .where('person_id', '=', it.one),
          )
        else if (it.kind === 'moves')
          run(db, q.updateTable('people').set({ domain: it.domain }).where('id', '=', it.one))
        else if (it.kind === 'merge') mergePeople(db, it.one, it.other, now)
        else if (it.kind === 'erase') erasePerson(db, it.one, now)
        else
          run(
            db,
            q
              .insertInto('recipients')
              .values({
                mailing_id: it.mailing,
                person_id: it.one,
                state: 'queued',
                at: now,
                due: now,
              })
              .onConflict((c) => c.doNothing()),
          )
      }
      expectSame()
    }),
    { numRuns: 60 },
  )
})
