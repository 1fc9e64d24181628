/** How many went by each way out of each step of a sequence, by the version they came in by: counted as they pass. */
export const sequenceTraffic = `
create table sequence_traffic (
  sequence_id integer not null references sequences on delete cascade,
  version integer not null,
  step text not null,
  way integer not null,
  people integer not null,
  primary key (sequence_id, version, step, way)
) strict, without rowid;
`
