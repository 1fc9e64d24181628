/** Which version of its letter each recipient got, and who reached a goal that is a segment. */
export const moreDispatch = `
-- Which of the letter's rules held when the message was made, as bits; null where it has none.
alter table recipients add column truth integer;

-- Who was in the goal's segment already when the mailing began for them.
create table goal_starts (
  mailing_id integer not null references mailings (id) on delete cascade,
  person_id integer not null references people (id) on delete cascade,
  primary key (mailing_id, person_id)
) strict, without rowid;

-- Who came into it, or left it, afterwards, and when that was seen.
create table goal_hits (
  mailing_id integer not null references mailings (id) on delete cascade,
  person_id integer not null references people (id) on delete cascade,
  at integer not null,
  primary key (mailing_id, person_id)
) strict, without rowid;
`
