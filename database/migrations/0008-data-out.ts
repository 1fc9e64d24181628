/** Data taken out of mailings, by hand and on a schedule; and why people say they left. */
export const dataOut = `
create table data_schedules (
  id integer primary key,
  choice text not null,
  every text not null,
  mail_to text,
  next_at integer not null,
  created_at integer not null
) strict;

create table data_outs (
  id integer primary key,
  -- What the address of the file ends in, for those who are not signed in.
  key text not null unique,
  choice text not null,
  schedule_id integer references data_schedules on delete set null,
  mail_to text,
  job_id integer references jobs on delete set null,
  counts text,
  size integer,
  created_at integer not null,
  made_at integer
) strict;

create table leave_reasons (
  mailing_id integer not null references mailings on delete cascade,
  person_id integer not null references people on delete cascade,
  reason text not null,
  words text not null default '',
  at integer not null,
  primary key (mailing_id, person_id)
) strict, without rowid;
`
