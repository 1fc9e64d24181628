/**
 * What happens once somebody has confirmed a sign-up: files that are promised, calls to programs with what they answered,
 * and mail to the team. Tests of versions of a form by lot. Work that a browser did for a sending, so that it counts once.
 */
export const afterSigningUp = `
create table sign_up_files (
  id integer primary key autoincrement,
  name text not null,
  mime text not null,
  bytes blob not null,
  at integer not null
) strict;
alter table sign_ups add column hook_key text;
alter table sign_up_sendings add column tell_due integer;
alter table sign_up_sendings add column work text;
create index sign_up_sendings_by_work on sign_up_sendings (work) where work is not null;
create index sign_up_sendings_to_tell on sign_up_sendings (tell_due) where tell_due is not null;
create table webhook_calls (
  id integer primary key autoincrement,
  sign_up_id integer not null references sign_ups,
  person_id integer not null references people on delete cascade,
  url text not null,
  body text not null,
  at integer not null,
  due integer,
  tries integer not null default 0,
  tried_at integer,
  taken integer not null default 0,
  answer text
) strict;
create index webhook_calls_due on webhook_calls (due) where due is not null;
create index webhook_calls_by_form on webhook_calls (sign_up_id, id);
create index webhook_calls_by_person on webhook_calls (person_id);
create index webhook_calls_by_time on webhook_calls (at);
create table sign_up_tests (
  id integer primary key autoincrement,
  sign_up_id integer not null references sign_ups,
  versions text not null,
  began_at integer not null,
  ended_at integer,
  kept integer
) strict;
create unique index sign_up_tests_running on sign_up_tests (sign_up_id) where ended_at is null;
`
