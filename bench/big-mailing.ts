import type { Database } from '../database'
import { addList } from '../database/people'
import { resetTotals } from '../database/mailings'
import { keptFolder } from './kept-folder'

const PEOPLE = 1_000_000
/** Of the first mailing, then of both together. */
const EVENTS = [2_000_000, 5_000_000] as const
/** In the fortnight from the first mailing on. */
const ORDERS = 300_000
const START = Date.UTC(2026, 10, 1, 9)

/** A data folder with two mailings to a million people each and five million opens and clicks; made once. */
export const bigMailingFolder = () =>
  keptFolder('mailing', 'two mailings to a million people', fill)

function fill(db: Database) {
  addList(db, { name: 'Wind notes', description: '' }, 0)
  db.sqlite.exec(`
    create temp table n as with recursive s(i) as (select 1 union all select i + 1 from s where i < ${PEOPLE}) select i from s;
    begin;
    insert into people (id, address, normal, domain, joined_at, changed_at)
      select i, 'reader' || i || '@' || d, 'reader' || i || '@' || d, d, 0, 0
      from (select i, 'provider' || (i % 40) || '.example' as d from n);
    insert into facts (person_id, joined_at) select i, 0 from n;
    insert into letters (id, subject, preview_text, document, version, updated_at) values (1, 'Wind', '', '{"version":1,"rows":[]}', 1, 0);
    insert into mailings (id, name, state, list_id, letter_id, started_at, finished_at, created_at)
      select i, 'Mailing ' || i, 'sent', 1, 1, ${START} + i, ${START}, 0 from n where i <= 2;
    insert into mailing_links (mailing_id, no, url, block_id, words)
      select m.i, l.i - 1, 'https://kites.example/' || l.i, 'b' || l.i, 'Link ' || l.i from n m, n l where m.i <= 2 and l.i <= 8;
    insert into agents (id, text) values (1, 'SailMail/4.1 (X11; Linux x86_64)'), (2, 'PocketPost/7.3 (phone)');
    insert into acts (id, mailing_id, person_id, kind, link, at, agent_id, method, verdict)
      select e, case when e <= ${EVENTS[0]} then 1 else 2 end, (e * 48271) % ${PEOPLE} + 1,
        case when e % 10 = 0 then 'click' else 'open' end, case when e % 10 = 0 then e % 80 / 10 end,
        ${START} + e % 172800000, 1 + e % 2, 'GET', 'human'
      from (select (k.i - 1) * ${PEOPLE} + n.i as e from n k cross join n where k.i <= ${EVENTS[1] / PEOPLE});
    insert into recipients (mailing_id, person_id, state, at, due, accepted_at, opened_at, clicked_at, answer)
      select m.i, p.i, case when p.i % 97 = 0 then 'bounced' else 'accepted' end, ${START}, ${START}, ${START},
        case when p.i % 97 and p.i % 5 < 2 then ${START} + p.i end, case when p.i % 97 and p.i % 50 = 0 then ${START} + p.i end,
        case when p.i % 97 = 0 then 'There is no such mailbox.' end
      from n m cross join n p where m.i <= 2;
    insert into orders (number, person_id, at, money)
      select 'G-' || i, (i * 48271) % ${PEOPLE} + 1, ${START} + i * 16807 % 1209600000, 500 + i * 7919 % 9500 from n where i <= ${ORDERS};
    insert into mailing_hours (mailing_id, hour, opens, clicks)
      select mailing_id, (opened_at - ${START}) / 3600000, count(*), 0 from recipients where opened_at is not null group by 1, 2;
    commit;
    analyze;
  `)
  for (const id of [1, 2]) resetTotals(db, id)
}
