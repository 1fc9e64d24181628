/** The first shape of the database: account, people, letters, mailings and what came of them. */
export const foundations = `
create table account (
  id integer primary key check (id = 1),
  name text not null,
  zone text not null,
  currency text not null,
  sender_name text not null,
  sender_address text not null,
  postal_address text not null,
  letterhead text not null,
  token_key text not null,
  dkim_selector text not null,
  dkim_private_key text not null,
  pace_per_minute integer,
  created_at integer not null
) strict;

create table users (
  id integer primary key,
  name text not null,
  address text not null unique,
  password_hash text not null,
  role text not null,
  created_at integer not null
) strict;

create table clock (
  id integer primary key check (id = 1),
  anchor_real integer not null,
  anchor_practice integer not null,
  rate integer not null,
  jump_to integer,
  followed_at integer not null default 0
) strict;

create table people (
  id integer primary key,
  address text not null,
  normal text not null unique,
  domain text not null,
  first_name text,
  last_name text,
  fields text not null default '{}',
  joined_at integer not null,
  changed_at integer not null
) strict;
create index people_joined on people (joined_at);

create table fields (
  key text primary key,
  name text not null,
  kind text not null,
  position integer not null
) strict;

create table lists (
  id integer primary key,
  name text not null,
  key text not null unique,
  description text not null,
  created_at integer not null
) strict;

create table subscriptions (
  person_id integer not null references people on delete cascade,
  list_id integer not null references lists,
  state text not null,
  since integer not null,
  primary key (person_id, list_id)
) strict, without rowid;
create index subscriptions_by_list on subscriptions (list_id, state, since);

create table wordings (
  id integer primary key,
  text text not null unique
) strict;

create table evidence (
  id integer primary key,
  person_id integer not null references people on delete cascade,
  list_id integer not null references lists,
  at integer not null,
  state text not null,
  way text not null,
  way_ref text,
  wording_id integer references wordings,
  ip text,
  agent text
) strict;
create index evidence_by_person on evidence (person_id);
create trigger evidence_is_never_updated before update on evidence
begin select raise(abort, 'evidence is never updated'); end;

create table tags (
  id integer primary key,
  name text not null unique
) strict;

create table person_tags (
  person_id integer not null references people on delete cascade,
  tag_id integer not null references tags,
  primary key (person_id, tag_id)
) strict, without rowid;
create index person_tags_by_tag on person_tags (tag_id);

create table set_aside (
  person_id integer primary key references people on delete cascade,
  at integer not null,
  reason text not null,
  detail text not null
) strict;

create table imports (
  id integer primary key,
  job_id integer,
  file_name text not null,
  path text not null,
  size integer not null,
  encoding text not null,
  delimiter text not null,
  plans text not null,
  list_id integer references lists,
  statement text not null,
  state text not null,
  rows integer not null default 0,
  added integer not null default 0,
  changed integer not null default 0,
  unchanged integer not null default 0,
  repeated integer not null default 0,
  refused integer not null default 0,
  never_mail integer not null default 0,
  created_at integer not null,
  finished_at integer
) strict;

create table import_notices (
  import_id integer not null references imports on delete cascade,
  row integer not null,
  verdict text not null,
  reason text not null,
  cells text not null,
  primary key (import_id, row)
) strict, without rowid;

create table segments (
  id integer primary key,
  name text not null,
  rule text not null,
  created_at integer not null
) strict;

create table letters (
  id integer primary key,
  subject text not null,
  preview_text text not null,
  document text not null,
  version integer not null,
  updated_at integer not null
) strict;

create table mailings (
  id integer primary key,
  name text not null,
  state text not null,
  list_id integer references lists,
  rule text,
  letter_id integer not null references letters,
  scheduled_at integer,
  started_at integer,
  finished_at integer,
  held_by text,
  held_note text,
  waiting_note text,
  created_at integer not null
) strict;
create index mailings_by_state on mailings (state, scheduled_at);

create table mailing_links (
  mailing_id integer not null references mailings on delete cascade,
  no integer not null,
  url text not null,
  block_id text not null,
  words text not null,
  primary key (mailing_id, no)
) strict, without rowid;

create table recipients (
  mailing_id integer not null references mailings on delete cascade,
  person_id integer not null,
  state text not null,
  at integer not null,
  due integer not null,
  attempts integer not null default 0,
  first_attempt_at integer,
  engine text,
  answer text,
  accepted_at integer,
  opened_at integer,
  clicked_at integer,
  left_at integer,
  machine_at integer,
  scanner_at integer,
  primary key (mailing_id, person_id)
) strict, without rowid;
create index recipients_due on recipients (mailing_id, due)
  where state in ('planned', 'queued', 'deferred');
create index recipients_claimed on recipients (engine) where state = 'claimed';
create index recipients_by_person on recipients (person_id, mailing_id);

create table mailing_totals (
  mailing_id integer primary key references mailings on delete cascade,
  planned integer not null default 0,
  queued integer not null default 0,
  claimed integer not null default 0,
  deferred integer not null default 0,
  uncertain integer not null default 0,
  accepted integer not null default 0,
  failed integer not null default 0,
  dropped integer not null default 0,
  bounced integer not null default 0,
  complained integer not null default 0,
  opened integer not null default 0,
  clicked integer not null default 0,
  left_list integer not null default 0,
  machine_opened integer not null default 0,
  scanner_clicked integer not null default 0
) strict;

create table mailing_hours (
  mailing_id integer not null references mailings on delete cascade,
  hour integer not null,
  opens integer not null default 0,
  clicks integer not null default 0,
  primary key (mailing_id, hour)
) strict, without rowid;

create table agents (
  id integer primary key,
  text text not null unique
) strict;

create table acts (
  id integer primary key,
  mailing_id integer not null,
  person_id integer not null,
  kind text not null,
  link integer,
  at integer not null,
  agent_id integer not null,
  method text not null,
  verdict text
) strict;
create index acts_unjudged on acts (id) where verdict is null;
create index acts_clicks on acts (mailing_id, person_id) where kind = 'click';

create table reports (
  id integer primary key,
  raw text not null,
  at integer not null,
  read integer not null default 0,
  outcome text
) strict;
create index reports_unread on reports (id) where read = 0;

create table link_checks (
  url text primary key,
  asked_at integer not null,
  checked_at integer,
  status integer,
  problem text
) strict;

create table pictures (
  id integer primary key,
  hash text not null unique,
  name text not null,
  mime text not null,
  width integer not null,
  height integer not null,
  bytes blob not null,
  created_at integer not null
) strict;

create table jobs (
  id integer primary key,
  kind text not null,
  payload text not null,
  state text not null,
  done integer not null default 0,
  total integer not null default 0,
  error text,
  engine text,
  cancel integer not null default 0,
  created_at integer not null,
  finished_at integer
) strict;
create index jobs_open on jobs (state) where state in ('waiting', 'running');
`
