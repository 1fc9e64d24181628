import { emptyMap, insertStep, type NewStep } from '../core/sequences'
import { DAY } from '../core/time'
import type { Database } from '../database'
import { addList } from '../database/people'
import { addSequence } from '../database/sequences'
import { keptFolder } from './kept-folder'

const PEOPLE = 1_000_000
/** Earlier rounds of each of them. */
const PAST = 5
export const INSIDE_NOW = Date.UTC(2026, 10, 23, 9)

/** A data folder with a million people inside a map of twelve steps with forks, and five million rounds past; made once. */
export const bigSequenceFolder = () =>
  keptFolder('sequence', 'a million people inside a sequence', fill)

const kinds: NewStep[] = [
  { kind: 'wait', ms: DAY },
  { kind: 'fork', ways: [{ when: { is: 'ordered' }, next: null }] },
  { kind: 'do', acts: [{ is: 'tag', tag: 'reads' }] },
  { kind: 'split', ways: [{ share: 500, next: null }] },
]

function fill(db: Database) {
  const list = addList(db, { name: 'Wind notes', description: '' }, 0)
  const id = addSequence(db, 'A year of wind', list, 0)
  let map = emptyMap
  for (let n = 0; n < 12; n++)
    map = insertStep(map, n === 0 ? null : `s${n - 1}`, `s${n}`, kinds[n % kinds.length]!)
  const json = JSON.stringify(map)
  db.sqlite.exec(`
    create temp table n as with recursive s(i) as (select 1 union all select i + 1 from s where i < ${PEOPLE}) select i from s;
    begin;
    update sequences set map = '${json}', state = 'running', version = 1, started_at = 0 where id = ${id};
    insert into sequence_versions (sequence_id, version, map, at) values (${id}, 1, '${json}', 0);
    insert into people (id, address, normal, domain, joined_at, changed_at)
      select i, 'reader' || i || '@inkpost.example', 'reader' || i || '@inkpost.example', 'inkpost.example', 0, 0 from n;
    insert into subscriptions (person_id, list_id, state, since) select i, ${list}, 'subscribed', 0 from n;
    insert into enrolments (sequence_id, person_id, round, version, state, why, step, due, visit, entered_at, ended_at)
      select ${id}, n.i, r.i - 1, 1, case when r.i > ${PAST} then 'inside' when (n.i + r.i) % 9 = 0 then 'left' else 'finished' end,
        case when r.i <= ${PAST} and (n.i + r.i) % 9 = 0 then 'unsubscribed' end,
        's' || ((n.i * 48271) % 12), ${INSIDE_NOW} + n.i * 16807 % 864000000, 3, 0, case when r.i <= ${PAST} then 5 end
      from n cross join n as r where r.i <= ${PAST + 1};
    insert into sequence_traffic (sequence_id, version, step, way, people)
      select ${id}, 1, 's' || (r.i - 1), w.i - 1, 2500000 from n as r cross join n as w where r.i <= 12 and w.i <= 2;
    commit;
    analyze;
  `)
}
