/** Sequences: their maps by version, who is inside and where they stand, and the mailings that are theirs. */
export const sequences = `
create table sequences (
  id integer primary key,
  name text not null,
  state text not null default 'draft' check (state in ('draft', 'running', 'paused', 'ended')),
  list_id integer references lists (id),
  -- JSON: the map as it is being drawn; see core/sequences.
  map text not null,
  -- Counts up with each change, so that two who edit at once don't lose anything.
  revision integer not null default 1,
  -- The version people enter by; 0 before it has ever run.
  version integer not null default 0,
  created_at integer not null,
  started_at integer,
  -- Up to where the two records were read that let people in: ids.
  evidence_read integer not null default 0,
  events_read integer not null default 0
) strict;

-- Those inside stay on the version they entered by.
create table sequence_versions (
  sequence_id integer not null references sequences (id) on delete cascade,
  version integer not null,
  map text not null,
  at integer not null,
  primary key (sequence_id, version)
) strict, without rowid;

create table enrolments (
  sequence_id integer not null references sequences (id) on delete cascade,
  person_id integer not null references people (id) on delete cascade,
  version integer not null,
  state text not null default 'inside' check (state in ('inside', 'finished', 'left')),
  why text,
  -- The step that is carried out next, when it is due, and how many were carried out before.
  step text not null,
  due integer not null,
  visit integer not null default 0,
  entered_at integer not null,
  ended_at integer,
  primary key (sequence_id, person_id)
) strict, without rowid;
create index enrolments_person on enrolments (person_id);
create index enrolments_due on enrolments (due) where state = 'inside';

alter table mailings add column sequence_id integer references sequences (id);
create index mailings_sequence on mailings (sequence_id) where sequence_id is not null;

-- 1: who joins a list by this import comes into the sequences that start so.
alter table imports add column starts_sequences integer not null default 0;
`
