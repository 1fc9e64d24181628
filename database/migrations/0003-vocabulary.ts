/**
 * What an account calls things: fields that are retired, colours of tags, what readers see of a list; and
 * how the columns of a file were taken, for the next file that has the same.
 */
export const vocabulary = `
alter table fields add column retired_at integer;
alter table tags add column color text not null default 'plain';
alter table lists add column public_name text not null default '';
alter table lists add column public_about text not null default '';
update lists set public_name = name;

-- The query in SQL by which a frozen segment came about.
alter table segments add column query text;
-- A deleted segment is kept for a day, so that it can be brought back with its people.
alter table segments add column deleted_at integer;

create table import_mappings (
  header text primary key,
  plans text not null,
  choices text not null,
  used_at integer not null
) strict, without rowid;
`
