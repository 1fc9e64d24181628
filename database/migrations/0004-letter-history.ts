/** How a letter was, sitting by sitting: who wrote, when, and what it was at the end of it. */
export const letterHistory = `
create table letter_versions (
  id integer primary key,
  letter_id integer not null references letters on delete cascade,
  began_at integer not null,
  at integer not null,
  by_id integer not null,
  by_name text not null,
  -- The version of the letter this is; a sitting's last one is kept.
  version integer not null,
  restored_from integer,
  subject text not null,
  preview_text text not null,
  document text not null
) strict;
create index letter_versions_by_letter on letter_versions (letter_id, id);

-- The picture and the words with which a letter's web version is shown where it is shared.
alter table letters add column web_key text;
create unique index letters_by_web_key on letters (web_key) where web_key is not null;
`
