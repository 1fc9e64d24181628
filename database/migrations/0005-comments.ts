/** What people say to each other about the blocks of a letter. */
export const comments = `
create table comments (
  id integer primary key,
  letter_id integer not null references letters on delete cascade,
  block_id text not null,
  answer_to integer references comments on delete cascade,
  at integer not null,
  by_id integer not null,
  by_name text not null,
  text text not null,
  resolved_at integer,
  resolved_by text
) strict;
create index comments_by_letter on comments (letter_id);
`
