/**
 * What was confirmed when a mailing was sent off, until when it can be called back, and what of it is kept for good
 * when it begins.
 */
export const whatGoesOut = `
-- Until then it can be called back with nothing gone out; by the host's clock, since a person sits before it.
alter table mailings add column callback_until integer;
-- The day and time that was wished, on the wall: 'YYYY-MM-DDTHH:mm' in the account's zone, or on each reader's clock.
alter table mailings add column wish text;
-- At what of it an engine died: the letter, or the number of the person whose message was being made.
alter table mailings add column died_at text;
-- JSON: what had come of it when somebody looked at a limit and let it go on; it is watched anew from there.
alter table mailings add column watched_from text;

alter table account add column callback_seconds integer not null default 10;

-- JSON: the sentence and the letter that were approved; null where it was approved before these were kept.
alter table approvals add column of text;

-- Whatever goes out, by what it is; the same once, however many mailings have it.
create table contents (
  hash text primary key,
  body blob not null
) strict, without rowid;
create table mailing_contents (
  mailing_id integer not null references mailings (id) on delete cascade,
  no integer not null,
  hash text not null references contents (hash),
  primary key (mailing_id, no)
) strict, without rowid;
create index mailing_contents_by_hash on mailing_contents (hash);

-- When it stood still: the time of a test does not run meanwhile.
create table mailing_pauses (
  mailing_id integer not null references mailings (id) on delete cascade,
  from_at integer not null,
  to_at integer,
  primary key (mailing_id, from_at)
) strict, without rowid;
`
