import type { Database } from '../database'
import { addField, addList } from '../database/people'
import { keptFolder } from './kept-folder'

/** The moment up to which the million did what they did. */
export const NOW = Date.UTC(2026, 10, 23, 9)

const PEOPLE = 1_000_000
const MAILINGS = 80
/** Of all pairs of a person and a mailing, those that were mailed: 20 million. */
const MAILED_EVERY = 4

/**
 * A data folder with a million people, 20 million mail events and half a million orders. Made once, by
 * SQLite itself with the triggers off and the sums computed at the end, and kept in `.data/bench`.
 */
export const millionFolder = () =>
  keptFolder('million', 'a million people with 20 million mail events', fill)

function fill(db: Database) {
  for (const name of ['Wind notes', 'Workshop news', 'Offers'])
    addList(db, { name, description: '' }, 0)
  addField(db, { key: 'town', name: 'Town', kind: 'text' })
  addField(db, { key: 'flies', name: 'Flying style', kind: 'choices' })
  const { sqlite } = db
  // A number in 0..1 that looks like chance and is always the same for the same two numbers.
  sqlite.exec(`
    create temp table n as with recursive s(i) as (select 1 union all select i + 1 from s where i < ${PEOPLE}) select i from s;
    begin;
    insert into people (id, address, normal, domain, first_name, last_name, fields, joined_at, changed_at)
    select i, 'reader' || i || '@' || d, 'reader' || i || '@' || d, d,
      'Name' || (i * 7919 % 997), 'Family' || (i * 104729 % 9973),
      json_object('town', 'Town' || (i * 31 % 40), 'flies', json_array(case i % 3 when 0 then 'stunt' when 1 then 'power' else 'indoor' end)),
      ${NOW} - (i * 48271 % 2147483647) % 94608000 * 1000, 0
    from (select i, case i % 5 when 0 then 'harbourmail.example' when 1 then 'inkpost.example' when 2 then 'oldmill.example' when 3 then 'workdesk.example' else 'veilpost.example' end as d from n);
    insert into subscriptions (person_id, list_id, state, since) select i, 1, 'subscribed', ${NOW} - 86400000 from n where i * 16807 % 100 < 80;
    insert into subscriptions (person_id, list_id, state, since) select i, 3, case when i % 20 = 0 then 'unsubscribed' else 'subscribed' end, ${NOW} - 86400000 from n where i * 69621 % 100 < 60;
    insert into letters (id, subject, preview_text, document, version, updated_at) values (1, '', '', '{}', 1, 0);
    insert into mailings (id, name, state, list_id, letter_id, started_at, finished_at, created_at)
      select i, 'Mailing ' || i, 'sent', 1, 1, ${NOW} - (${MAILINGS} - i) * 604800000, ${NOW}, 0 from n where i <= ${MAILINGS};
    insert into recipients (mailing_id, person_id, state, at, due, accepted_at, opened_at, clicked_at)
      select m, i, 'accepted', a, a, a,
        case when (i * 7 + m * 13) % 100 < (i % 7) * 9 then a + 3600000 end,
        case when (i * 7 + m * 13) % 100 < (i % 7) * 2 then a + 3660000 end
      from (select m.i as m, p.i as i, ${NOW} - (${MAILINGS} - m.i) * 604800000 + p.i % 600000 as a
        from (select i from n where i <= ${MAILINGS}) m cross join n p where (p.i + m.i) % ${MAILED_EVERY} = 0);
    insert into products (id, key, name, category, price, created_at) values (1, 'delta', 'Delta 7', 'stunt', 9400, 0), (2, 'spar', 'Spar', 'parts', 500, 0);
    insert into orders (id, number, person_id, at, money)
      select i, 'G-' || i, (i * 48271) % ${PEOPLE} / 3 * 3 + 1, ${NOW} - (i * 16807 % 31536000) * 1000, 500 + (i * 7919) % 9500 from n where i <= 500000;
    insert into order_items (order_id, position, product_id, quantity, money) select id, 0, 1 + id % 2, 1, money from orders;
    insert into facts (person_id, joined_at) select id, joined_at from people;
    create temp table mail as select person_id, count(accepted_at) s, max(accepted_at) ls, count(opened_at) o, max(opened_at) lo, count(clicked_at) c, max(clicked_at) lc,
      sum(coalesce(pow(2, (opened_at - ${NOW}) / 3888000000.0), 0) + coalesce(2 * pow(2, (clicked_at - ${NOW}) / 3888000000.0), 0)) k
      from recipients group by person_id;
    create unique index temp.mail_by on mail (person_id);
    create temp table bought as select person_id, count(*) n, sum(money) m, min(at) f, max(at) l, sum(4 * pow(2, (at - ${NOW}) / 3888000000.0)) k from orders group by person_id;
    create unique index temp.bought_by on bought (person_id);
    update facts set sent = s, last_sent_at = ls, ${['2nd', '3rd', '4th', '5th'].map((nth, i) => `sent_${nth}_at = ls - ${(i + 1) * MAILED_EVERY * 604_800_000}`).join(', ')}, opened = o, last_opened_at = lo, clicked = c, last_clicked_at = lc, keenness = case when k > 0 then k end
      from mail where mail.person_id = facts.person_id;
    update facts set lists = bits from (select person_id as of, sum(1 << list_id) as bits from subscriptions where state = 'subscribed' group by 1) where of = person_id;
    update facts set orders = n, spent = m, first_order_at = f, last_order_at = l, keenness = coalesce(keenness, 0) + k
      from bought where bought.person_id = facts.person_id;
    update facts set keenness = log2(keenness) + ${NOW} / 3888000000.0 where keenness is not null;
    commit;
    analyze;
  `)
}
