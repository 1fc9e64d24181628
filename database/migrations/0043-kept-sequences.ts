/** Sequences kept as templates, each as the file that it is elsewhere; and those that have ended are put away. */
export const keptSequences = `
create table kept_sequences (
  id integer primary key autoincrement,
  name text not null,
  about text not null,
  -- JSON: what \`sequenceFile\` writes.
  file text not null,
  created_at integer not null,
  by_name text not null,
  deleted_at integer
) strict;
alter table sequences add column archived_at integer;
`
