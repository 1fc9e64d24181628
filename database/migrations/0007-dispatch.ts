/** How mailings go out: their plans, parts, variants, who is held out; and feeds that letters show entries of. */
export const dispatch = `
create table feeds (
  url text primary key,
  asked_at integer not null,
  read_at integer,
  entries text not null default '[]',
  problem text
) strict;

alter table mailings add column plan text not null default '{}';
alter table mailings add column winner integer;
alter table mailings add column decided_at integer;
alter table mailings add column decided_by text;
alter table mailings add column overruled text;

create table mailing_parts (
  mailing_id integer not null references mailings on delete cascade,
  no integer not null,
  kind text not null,
  released integer not null default 0,
  begun_at integer,
  primary key (mailing_id, no)
) strict, without rowid;

create table mailing_variants (
  mailing_id integer not null references mailings on delete cascade,
  no integer not null,
  letter_id integer not null references letters,
  sender_name text not null,
  hour integer,
  primary key (mailing_id, no)
) strict, without rowid;

create table holdouts (
  mailing_id integer not null references mailings on delete cascade,
  person_id integer not null references people on delete cascade,
  at integer not null,
  primary key (mailing_id, person_id)
) strict, without rowid;
create index holdouts_by_person on holdouts (person_id);

alter table recipients add column variant integer;
alter table recipients add column part integer;
`
