/** What letters are made of besides themselves: stamps, own templates, other letterheads, pictures; and who approved them. */
export const letterParts = `
create table stamps (
  id integer primary key,
  name text not null,
  content text not null,
  version integer not null default 1,
  created_at integer not null,
  updated_at integer not null,
  deleted_at integer
) strict;

create table own_templates (
  id integer primary key,
  name text not null,
  about text not null,
  subject text not null,
  preview_text text not null,
  document text not null,
  created_at integer not null,
  by_name text not null,
  deleted_at integer
) strict;

create table letterheads (
  id integer primary key,
  name text not null,
  look text not null,
  created_at integer not null,
  deleted_at integer
) strict;
alter table letters add column letterhead_id integer references letterheads;

create table approvals (
  id integer primary key,
  letter_id integer not null references letters on delete cascade,
  version integer not null,
  asked_at integer not null,
  asked_by text not null,
  of_id integer not null references users,
  note text not null,
  answered_at integer,
  verdict text check (verdict in ('approved', 'not yet')),
  words text
) strict;
create index approvals_by_letter on approvals (letter_id);

alter table pictures add column folder text not null default '';
alter table pictures add column alt text not null default '';
alter table pictures add column made_from text;
alter table pictures add column removed_at integer;
alter table products add column url text;
alter table products add column picture text;
alter table products add column stock integer;
create table picture_sizes (
  hash text not null,
  width integer not null,
  mime text not null,
  bytes blob not null,
  primary key (hash, width)
) strict, without rowid;
`
