/**
 * Who became whom when two people were made one. Letters that went to the one who is gone are still in mailboxes: their
 * links, and mail that comes back to them, are the kept one's from then on.
 */
export const mergedPeople = `
create table merged_people (
  gone_id integer primary key,
  kept_id integer not null references people on delete cascade
) strict;
create index merged_people_by_kept on merged_people (kept_id);
`
