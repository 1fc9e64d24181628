/**
 * Saved segments; what people did and bought, as rows, and summed up per person in `facts`, which
 * triggers keep true whoever writes; tokens for programs.
 */
export const segmentsAndFacts = `
create table products (
  id integer primary key,
  key text not null unique,
  name text not null,
  category text not null,
  price integer not null,
  created_at integer not null
) strict;

create table orders (
  id integer primary key,
  number text not null unique,
  person_id integer not null references people on delete cascade,
  at integer not null,
  money integer not null
) strict;
create index orders_by_person on orders (person_id, at, money);
create index orders_by_time on orders (at);

create table order_items (
  order_id integer not null references orders on delete cascade,
  position integer not null,
  product_id integer not null references products,
  quantity integer not null,
  money integer not null,
  primary key (order_id, position)
) strict, without rowid;
create index order_items_by_product on order_items (product_id);

create table events (
  id integer primary key,
  person_id integer not null references people on delete cascade,
  name text not null,
  at integer not null,
  props text not null default '{}'
) strict;
create index events_by_person on events (person_id, name, at);
create index events_by_name on events (name, at);

create table facts (
  person_id integer primary key references people on delete cascade,
  joined_at integer not null,
  sent integer not null default 0,
  last_sent_at integer,
  opened integer not null default 0,
  last_opened_at integer,
  clicked integer not null default 0,
  last_clicked_at integer,
  orders integer not null default 0,
  spent integer not null default 0,
  first_order_at integer,
  last_order_at integer,
  keenness real
) strict;

insert into facts (person_id, joined_at, sent, last_sent_at, opened, last_opened_at, clicked, last_clicked_at, keenness)
select p.id, p.joined_at,
  count(r.accepted_at), max(r.accepted_at),
  count(r.opened_at), max(r.opened_at),
  count(r.clicked_at), max(r.clicked_at),
  case when count(r.opened_at) + count(r.clicked_at) > 0 then
    log2(sum(coalesce(pow(2, (r.opened_at - m.last) / 3888000000.0), 0)
           + coalesce(2 * pow(2, (r.clicked_at - m.last) / 3888000000.0), 0))) + m.last / 3888000000.0
  end
from people p
left join recipients r on r.person_id = p.id
left join (select max(max(coalesce(opened_at, 0)), max(coalesce(clicked_at, 0))) as last from recipients) m
group by p.id;

-- "At least n times within …" counts these without looking at the rows.
drop index recipients_by_person;
create index recipients_by_person on recipients (person_id, accepted_at);
create index recipients_opened on recipients (person_id, opened_at) where opened_at is not null;
create index recipients_clicked on recipients (person_id, clicked_at) where clicked_at is not null;

create trigger facts_of_person after insert on people
begin
  insert into facts (person_id, joined_at) values (new.id, new.joined_at);
end;

create trigger facts_joined after update of joined_at on people
begin
  update facts set joined_at = new.joined_at where person_id = new.id;
end;

create trigger facts_sent_new after insert on recipients when new.accepted_at is not null
begin
  update facts set sent = sent + 1, last_sent_at = max(coalesce(last_sent_at, new.accepted_at), new.accepted_at)
  where person_id = new.person_id;
end;
create trigger facts_sent after update of accepted_at on recipients
  when old.accepted_at is null and new.accepted_at is not null
begin
  update facts set sent = sent + 1, last_sent_at = max(coalesce(last_sent_at, new.accepted_at), new.accepted_at)
  where person_id = new.person_id;
end;

create trigger facts_opened_new after insert on recipients when new.opened_at is not null
begin
  update facts set opened = opened + 1,
    last_opened_at = max(coalesce(last_opened_at, new.opened_at), new.opened_at),
    keenness = max(coalesce(keenness, -1e300), new.opened_at / 3888000000.0)
      + log2(1 + pow(2, -min(abs(coalesce(keenness, -1e300) - new.opened_at / 3888000000.0), 1000)))
  where person_id = new.person_id;
end;
create trigger facts_opened after update of opened_at on recipients
  when old.opened_at is null and new.opened_at is not null
begin
  update facts set opened = opened + 1,
    last_opened_at = max(coalesce(last_opened_at, new.opened_at), new.opened_at),
    keenness = max(coalesce(keenness, -1e300), new.opened_at / 3888000000.0)
      + log2(1 + pow(2, -min(abs(coalesce(keenness, -1e300) - new.opened_at / 3888000000.0), 1000)))
  where person_id = new.person_id;
end;

create trigger facts_clicked_new after insert on recipients when new.clicked_at is not null
begin
  update facts set clicked = clicked + 1,
    last_clicked_at = max(coalesce(last_clicked_at, new.clicked_at), new.clicked_at),
    keenness = max(coalesce(keenness, -1e300), 1 + new.clicked_at / 3888000000.0)
      + log2(1 + pow(2, -min(abs(coalesce(keenness, -1e300) - 1 - new.clicked_at / 3888000000.0), 1000)))
  where person_id = new.person_id;
end;
create trigger facts_clicked after update of clicked_at on recipients
  when old.clicked_at is null and new.clicked_at is not null
begin
  update facts set clicked = clicked + 1,
    last_clicked_at = max(coalesce(last_clicked_at, new.clicked_at), new.clicked_at),
    keenness = max(coalesce(keenness, -1e300), 1 + new.clicked_at / 3888000000.0)
      + log2(1 + pow(2, -min(abs(coalesce(keenness, -1e300) - 1 - new.clicked_at / 3888000000.0), 1000)))
  where person_id = new.person_id;
end;

create trigger facts_ordered after insert on orders
begin
  update facts set orders = orders + 1, spent = spent + new.money,
    first_order_at = min(coalesce(first_order_at, new.at), new.at),
    last_order_at = max(coalesce(last_order_at, new.at), new.at),
    keenness = max(coalesce(keenness, -1e300), 2 + new.at / 3888000000.0)
      + log2(1 + pow(2, -min(abs(coalesce(keenness, -1e300) - 2 - new.at / 3888000000.0), 1000)))
  where person_id = new.person_id;
end;
create trigger orders_keep_person_and_time before update of person_id, at on orders
  when old.person_id <> new.person_id or old.at <> new.at
begin select raise(abort, 'an order stays with its person and its time'); end;
create trigger facts_order_money after update of money on orders
begin
  update facts set spent = spent + new.money - old.money where person_id = new.person_id;
end;

alter table segments add column updated_at integer not null default 0;
alter table segments add column version integer not null default 1;
alter table segments add column frozen_at integer;
create table frozen_people (
  segment_id integer not null references segments on delete cascade,
  person_id integer not null references people on delete cascade,
  primary key (segment_id, person_id)
) strict, without rowid;
create index frozen_people_by_person on frozen_people (person_id);

create table segment_days (
  segment_id integer not null references segments on delete cascade,
  day text not null,
  size integer not null,
  came integer not null,
  went integer not null,
  primary key (segment_id, day)
) strict, without rowid;

alter table imports add column mode text not null default 'both';
alter table imports add column clear_empty integer not null default 0;
alter table imports add column tag text;
alter table imports add column skipped integer not null default 0;
alter table imports add column preview text;
alter table imports add column undone text;
-- What an import did, for undoing it: ids it added, a row for each of its transactions, and what it changed.
create table import_added (
  import_id integer not null references imports on delete cascade,
  first_id integer not null,
  last_id integer not null,
  primary key (import_id, first_id)
) strict, without rowid;
create table import_changes (
  import_id integer not null references imports on delete cascade,
  person_id integer not null references people on delete cascade,
  change text not null,
  primary key (import_id, person_id)
) strict, without rowid;
create index import_changes_by_person on import_changes (person_id);

create table api_tokens (
  id integer primary key,
  name text not null,
  hash text not null unique,
  created_at integer not null,
  last_used_at integer,
  revoked_at integer
) strict;

create table api_answers (
  token_id integer not null references api_tokens on delete cascade,
  key text not null,
  request_hash text not null,
  status integer not null,
  answer text not null,
  at integer not null,
  primary key (token_id, key)
) strict, without rowid;

create table notes (
  id integer primary key,
  person_id integer not null references people on delete cascade,
  at integer not null,
  by_name text not null,
  text text not null
) strict;
create index notes_by_person on notes (person_id);

create table erased (
  hash text primary key,
  at integer not null
) strict, without rowid;
create index people_names on people (last_name collate nocase, first_name collate nocase);
create index facts_spent on facts (spent);
create index facts_last_opened on facts (last_opened_at);
create index facts_keenness on facts (keenness);
create index people_domain on people (domain);
`
