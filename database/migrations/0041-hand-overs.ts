/**
 * What steps of sequences tell others of somebody: another program, which is asked again until it has answered, and the team.
 */
export const handOvers = `
create table hand_overs (
  id integer primary key,
  sequence_id integer not null references sequences on delete cascade,
  person_id integer not null references people on delete cascade,
  round integer not null,
  step text not null,
  visit integer not null,
  -- Which of the step's acts.
  act integer not null,
  url text not null,
  body text not null,
  at integer not null,
  -- When it is tried next; null: it was answered, or given up.
  due integer,
  tries integer not null default 0,
  tried_at integer,
  -- 1: taken, 0: refused or given up; null: not yet known.
  taken integer,
  -- What came of the last try, in words.
  said text,
  -- The object that was answered, as JSON.
  answer text not null default '{}',
  unique (sequence_id, person_id, round, step, visit, act)
) strict;
create index hand_overs_due on hand_overs (due) where due is not null;
create index hand_overs_by_person on hand_overs (person_id);
create index hand_overs_by_time on hand_overs (at);

create table team_tellings (
  id integer primary key,
  sequence_id integer not null references sequences on delete cascade,
  person_id integer not null references people on delete cascade,
  recipient text not null,
  text text not null,
  at integer not null,
  due integer not null
) strict;
create index team_tellings_due on team_tellings (due);
create index team_tellings_by_person on team_tellings (person_id);

-- Sealed: signs what a sequence hands over; null before it is asked for.
alter table sequences add column hook_key text;
`
