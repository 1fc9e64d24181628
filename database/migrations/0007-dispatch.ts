/** Feeds that letters show entries of. */
export const dispatch = `
create table feeds (
  url text primary key,
  asked_at integer not null,
  read_at integer,
  entries text not null default '[]',
  problem text
) strict;
`
