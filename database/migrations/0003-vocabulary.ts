/**
 * What an account calls things: fields that are retired, colours of tags, what readers see of a list; and
 * how the columns of a file were taken, for the next file that has the same.
 */
export const vocabulary = `
alter table fields add column retired_at integer;
alter table tags add column color text not null default 'plain';
alter table lists add column public_name text not null default '';
alter table lists add column public_about text not null default '';
update lists set public_name = name;

-- The query in SQL by which a frozen segment came about.
alter table segments add column query text;
-- A deleted segment is kept for a day, so that it can be brought back with its people.
alter table segments add column deleted_at integer;

-- Segments are followed day by day: who was in them, who came and went, and because of which line.
alter table segment_days add column at integer not null default 0;
alter table segment_days add column version integer not null default 1;
create table segment_people (
  segment_id integer not null references segments on delete cascade,
  person_id integer not null references people on delete cascade,
  primary key (segment_id, person_id)
) strict, without rowid;
create index segment_people_by_person on segment_people (person_id);
create table segment_moves (
  segment_id integer not null references segments on delete cascade,
  day text not null,
  person_id integer not null references people on delete cascade,
  came integer not null,
  why text,
  primary key (segment_id, day, person_id)
) strict, without rowid;
create index segment_moves_by_person on segment_moves (person_id);

create index api_answers_by_time on api_answers (at);

create table import_mappings (
  header text primary key,
  plans text not null,
  choices text not null,
  used_at integer not null
) strict, without rowid;
`
