/**
 * The reader's own page. What readers ask for by themselves: no mailings for some weeks, at most one in so many days; and what they changed on
 * their own page, which is never changed afterwards. Fields can be opened so that readers see and change their value, lists
 * so that they join by themselves. What is asked for with more than a letter's link (everything known, to be erased, another
 * address) is a request that a mail to the address itself confirms. Readers are spoken to in a language, with words that the
 * account may change.
 */
export const readersOwnPage = `
create table own_limits (
  person_id integer primary key references people on delete cascade,
  paused_at integer,
  paused_until integer,
  one_in_days integer
) strict;
create index own_limits_paused on own_limits (paused_until) where paused_until is not null;
create table own_changes (
  id integer primary key,
  person_id integer not null references people on delete cascade,
  at integer not null,
  what text not null,
  detail text not null,
  wording_id integer not null references wordings,
  mailing_id integer,
  ip text,
  agent text
) strict;
create index own_changes_by_person on own_changes (person_id);
create trigger own_changes_are_never_updated before update on own_changes
begin select raise(abort, 'what readers changed is never updated'); end;
alter table fields add column readers integer not null default 0;
alter table lists add column public_often text not null default '';
alter table lists add column offered integer not null default 0;
alter table lists add column language text;
alter table account add column language text not null default 'en';
create table reader_words (
  language text not null,
  name text not null,
  text text not null,
  primary key (language, name)
) strict, without rowid;
create table own_requests (
  id integer primary key,
  person_id integer not null references people on delete cascade,
  kind text not null,
  hash text not null unique,
  secret text,
  sent_to text not null,
  address text,
  language text not null,
  mailing_id integer,
  asked_at integer not null,
  until integer not null,
  used_at integer,
  send_due integer,
  tries integer not null default 0,
  answer text
) strict;
create index own_requests_to_send on own_requests (send_due) where send_due is not null;
create index own_requests_by_person on own_requests (person_id);
`
