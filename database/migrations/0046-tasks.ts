/** What the team is to do about people. */
export const tasks = `
create table tasks (
  id integer primary key autoincrement,
  person_id integer not null references people on delete cascade,
  text text not null,
  -- A day of the account's calendar, as "2026-11-23".
  due text not null,
  for_address text,
  by_name text not null,
  at integer not null,
  done_at integer,
  done_by text
) strict;
create index tasks_by_person on tasks (person_id);
create index tasks_to_do on tasks (due, id) where done_at is null;
create index tasks_done on tasks (done_at) where done_at is not null;
`
