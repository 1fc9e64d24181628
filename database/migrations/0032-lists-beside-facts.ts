import type Sqlite from 'better-sqlite3'

const kept = [
  ...['joined_at', 'spent', 'last_opened_at', 'orders', 'last_clicked_at', 'last_sent_at', 'sent'],
  ...['opened', 'clicked', 'first_order_at', 'last_order_at', 'keenness'],
  ...['sent_2nd_at', 'sent_3rd_at', 'sent_4th_at', 'sent_5th_at'],
]

/**
 * Which lists somebody is subscribed to stands with their facts as bits, the list's id being the bit's number, so that the
 * commonest condition of all costs no look-up per person. A list with a higher id than 62 has none and is looked up.
 *
 * Counting reads a row only up to the last column that it asks for, so the table is laid anew with what is asked for most
 * at the front.
 */
export const listsBesideFacts = {
  withoutForeignKeys(sqlite: Sqlite.Database) {
    sqlite.exec(`
create table facts_anew (
  person_id integer primary key references people on delete cascade,
  lists integer not null default 0,
  joined_at integer not null,
  spent integer not null default 0,
  last_opened_at integer,
  orders integer not null default 0,
  last_clicked_at integer,
  last_sent_at integer,
  sent integer not null default 0,
  opened integer not null default 0,
  clicked integer not null default 0,
  first_order_at integer,
  last_order_at integer,
  keenness real,
  sent_2nd_at integer not null default 0,
  sent_3rd_at integer not null default 0,
  sent_4th_at integer not null default 0,
  sent_5th_at integer not null default 0
) strict;
insert into facts_anew (person_id, lists, ${kept.join(', ')})
  select facts.person_id, coalesce(t.bits, 0), ${kept.join(', ')} from facts
  left join (select person_id, sum(1 << list_id) as bits from subscriptions
    where state = 'subscribed' and list_id <= 62 group by person_id) as t on t.person_id = facts.person_id
  order by facts.person_id;
drop table facts;
alter table facts_anew rename to facts;
create index facts_spent on facts (spent);
create index facts_last_opened on facts (last_opened_at);
create index facts_keenness on facts (keenness);
create trigger facts_list_joined after insert on subscriptions
  when new.state = 'subscribed' and new.list_id <= 62
begin
  update facts set lists = lists | (1 << new.list_id) where person_id = new.person_id;
end;
create trigger facts_list_changed after update of state on subscriptions
  when new.list_id <= 62 and (new.state = 'subscribed') <> (old.state = 'subscribed')
begin
  update facts set lists = case when new.state = 'subscribed'
      then lists | (1 << new.list_id) else lists & ~(1 << new.list_id) end
    where person_id = new.person_id;
end;
create trigger facts_list_gone after delete on subscriptions
  when old.state = 'subscribed' and old.list_id <= 62
begin
  update facts set lists = lists & ~(1 << old.list_id) where person_id = old.person_id;
end;
    `)
  },
}
