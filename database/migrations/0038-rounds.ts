import type Sqlite from 'better-sqlite3'

/** Counts the first of somebody's clicks on a link, in each round of theirs; and every click. */
const followed = `
  insert into mailing_link_totals (mailing_id, no, people, clicks)
    values (new.mailing_id, new.link, not exists (
      select 1 from acts where mailing_id = new.mailing_id and person_id = new.person_id and round = new.round
        and kind = 'click' and link = new.link and verdict = 'human' and id <> new.id), 1)
    on conflict do update set people = people + excluded.people, clicks = clicks + 1;
`

/** Where somebody is counted: at their step while they are inside, by the reason they came out for afterwards. */
const place = (row: 'old' | 'new') =>
  `case ${row}.state when 'inside' then ${row}.step else coalesce(${row}.why, '') end`
const comes = `
  insert into sequence_standing (sequence_id, version, state, place, people)
    values (new.sequence_id, new.version, new.state, ${place('new')}, 1)
    on conflict do update set people = people + 1;`
const goes = `
  update sequence_standing set people = people - 1
    where sequence_id = old.sequence_id and version = old.version and state = old.state and place = ${place('old')};`

const columns = `
alter table recipients add column round integer not null default 0;
alter table leave_reasons add column round integer not null default 0;
alter table enrolments add column round integer not null default 0;
-- By which of the version's starts they came in, counted from 0; null: let in by hand, or by another sequence.
alter table enrolments add column start integer;
-- What started it, where that was an event or an order: its id.
alter table enrolments add column started_by integer;
-- When they came to the step where they stand, and whether they go on there by what they do.
alter table enrolments add column arrived_at integer not null default 0;
alter table enrolments add column wakes integer not null default 0;
alter table acts add column round integer not null default 0;
alter table replies add column round integer not null default 0;
`

const rest = `
drop trigger link_followed;
drop trigger link_followed_and_judged;
create trigger link_followed after update of verdict on acts
  when new.kind = 'click' and new.link is not null and new.verdict = 'human' and old.verdict is null
begin ${followed} end;
create trigger link_followed_and_judged after insert on acts
  when new.kind = 'click' and new.link is not null and new.verdict = 'human'
begin ${followed} end;

-- Up to where each start of a sequence was read: the id of the last row, or of a date the time, ms.
create table sequence_marks (
  sequence_id integer not null references sequences on delete cascade,
  start integer not null,
  upto integer not null,
  primary key (sequence_id, start)
) strict, without rowid;
insert into sequence_marks (sequence_id, start, upto)
  select id, 0, case json_extract(map, '$.start.when.is') when 'event' then events_read else evidence_read end
  from sequences where version > 0;
alter table sequences drop column evidence_read;
alter table sequences drop column events_read;

-- Who is to come in, until the engine has let them in: by hand (start null), or by a start that is noted elsewhere.
create table sequence_arrivals (
  id integer primary key autoincrement,
  sequence_id integer not null references sequences on delete cascade,
  start integer,
  person_id integer not null references people on delete cascade,
  at integer not null
) strict;
create index sequence_arrivals_person on sequence_arrivals (person_id);

create index enrolments_waking on enrolments (person_id) where wakes = 1;
-- Up to where records were read for whoever waits for something to happen: the id of the last row.
create table woken_up_to (record text primary key, upto integer not null) strict, without rowid;

-- How many rounds stand where, counted as they move: nobody waits for a million to be counted.
create table sequence_standing (
  sequence_id integer not null references sequences on delete cascade,
  version integer not null,
  state text not null,
  place text not null,
  people integer not null,
  primary key (sequence_id, version, state, place)
) strict, without rowid;
insert into sequence_standing (sequence_id, version, state, place, people)
  select sequence_id, version, state, ${place('new').replaceAll('new.', '')}, count(*) from enrolments group by 1, 2, 3, 4;
create trigger standing_came after insert on enrolments
begin ${comes} end;
create trigger standing_moved after update of state, step, why, version on enrolments
  when old.state <> new.state or old.step <> new.step or old.why is not new.why or old.version <> new.version
begin ${goes} ${comes} end;
create trigger standing_gone after delete on enrolments
begin ${goes} end;
`

interface Made {
  name: string
  sql: string
}

/**
 * Somebody may come into a sequence again: each time is a round, and mail, acts, reasons and replies belong to one. All
 * that is old is round 0. Where the round is part of what a row is known by, its table is made anew beside the old one.
 */
export const rounds = {
  withoutForeignKeys(sqlite: Sqlite.Database) {
    sqlite.exec(columns)
    for (const table of ['recipients', 'leave_reasons', 'enrolments']) keyByRound(sqlite, table)
    sqlite.exec(rest)
  },
}

function keyByRound(sqlite: Sqlite.Database, table: string) {
  const { sql } = sqlite
    .prepare<[string], Made>(
      "select name, sql from sqlite_master where type = 'table' and name = ?",
    )
    .get(table)!
  const made = sql
    .replace(/^create table "?\w+"?/i, `create table "${table}_beside"`)
    .replace(/primary key \((\w+), person_id\)/, 'primary key ($1, person_id, round)')
  const belongings = sqlite
    .prepare<[string], Made>(
      "select name, sql from sqlite_master where type in ('index', 'trigger') and tbl_name = ? and sql is not null order by rowid",
    )
    .all(table)
  sqlite.exec(made)
  sqlite.exec(`insert into "${table}_beside" select * from "${table}"`)
  sqlite.exec(`drop table "${table}"`)
  sqlite.exec(`alter table "${table}_beside" rename to "${table}"`)
  for (const one of belongings) sqlite.exec(one.sql)
}
