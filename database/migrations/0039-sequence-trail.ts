/**
 * Each step that somebody goes by, so that their way can be told, and the ways of a split judged; and what splits were decided
 * to, or have come to by themselves.
 */
export const sequenceTrail = `
create table sequence_trail (
  sequence_id integer not null,
  person_id integer not null,
  round integer not null,
  -- How many steps were carried out before.
  visit integer not null,
  step text not null,
  way integer not null,
  at integer not null,
  primary key (sequence_id, person_id, round, visit),
  foreign key (sequence_id, person_id, round) references enrolments on delete cascade
) strict, without rowid;
create index sequence_trail_ways on sequence_trail (sequence_id, step, way, at);

create table split_shares (
  sequence_id integer not null references sequences on delete cascade,
  step text not null,
  -- From when on its ways are judged: since it is as it is.
  since integer not null,
  -- JSON: tenths of a percent by way; null: as the map says.
  shares text,
  -- Who decided it, and when; null: it did so by itself.
  by_name text,
  at integer,
  -- When its ways were looked at last.
  looked_at integer,
  primary key (sequence_id, step)
) strict, without rowid;
`
