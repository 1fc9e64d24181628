/**
 * Sign-ups: forms with their published versions; what was sent in by them, with where each sending stands and the mail
 * that is due to it; and who saw them, by a hash whose key is thrown away each day. Evidence of consent leads to the
 * sending that made it.
 */
export const signUps = `
create table sign_ups (
  id integer primary key autoincrement,
  key text not null unique,
  name text not null,
  state text not null default 'draft',
  form text not null,
  revision integer not null default 1,
  live_version integer,
  created_at integer not null,
  deleted_at integer
) strict;
create table sign_up_versions (
  sign_up_id integer not null references sign_ups,
  version integer not null,
  form text not null,
  at integer not null,
  by_name text,
  primary key (sign_up_id, version)
) strict, without rowid;
create trigger sign_up_versions_are_never_updated before update on sign_up_versions
begin select raise(abort, 'what was published is never updated'); end;
create table sign_up_sendings (
  id integer primary key autoincrement,
  sign_up_id integer not null references sign_ups,
  version integer not null,
  language text not null,
  at integer not null,
  address text not null,
  normal text not null,
  given text not null,
  ticked text not null,
  page text,
  source text not null default '{}',
  device text not null,
  ip text,
  agent text,
  state text not null,
  doubt text,
  person_id integer references people on delete cascade,
  hash text not null unique,
  secret text,
  mail text,
  send_due integer,
  tries integer not null default 0,
  mailed integer not null default 0,
  mailed_at integer,
  answer text,
  remind_due integer,
  over_due integer,
  ended_at integer
) strict;
create index sign_up_sendings_by_form on sign_up_sendings (sign_up_id, at);
create index sign_up_sendings_by_address on sign_up_sendings (normal, at);
create index sign_up_sendings_by_network on sign_up_sendings (ip, at);
create index sign_up_sendings_by_person on sign_up_sendings (person_id) where person_id is not null;
create index sign_up_sendings_to_mail on sign_up_sendings (send_due) where send_due is not null;
create index sign_up_sendings_to_remind on sign_up_sendings (remind_due) where remind_due is not null;
create index sign_up_sendings_to_end on sign_up_sendings (over_due) where over_due is not null;
create index sign_up_sendings_to_forget on sign_up_sendings (at) where person_id is null and normal <> '';
create table sign_up_visits (
  sign_up_id integer not null references sign_ups,
  visitor text not null,
  version integer not null,
  at integer not null,
  language text not null,
  device text not null,
  page text,
  source text not null default '{}',
  begun integer not null default 0,
  primary key (sign_up_id, visitor)
) strict, without rowid;
create index sign_up_visits_by_time on sign_up_visits (sign_up_id, at);
create table visitor_keys (day text primary key, key text not null) strict;
alter table evidence add column sending_id integer;
`
