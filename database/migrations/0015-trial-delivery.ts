/** Mailboxes of one's own at providers, and what became of letters that were sent there to try. */
export const trialDelivery = `
create table trial_mailboxes (
  id integer primary key,
  address text not null unique,
  host text not null,
  port integer not null,
  secure integer not null,
  login text not null,
  password text not null,
  created_at integer not null,
  -- Taken away, but its earlier trials are told; and it can come back.
  removed_at integer
) strict;

create table trials (
  mailing_id integer not null references mailings (id) on delete cascade,
  mailbox_id integer not null references trial_mailboxes (id) on delete cascade,
  -- Which version of the letter was tried.
  version integer not null,
  -- The letter itself as JSON, until it has gone out.
  letter text,
  state text not null,
  asked_at integer not null,
  message_id text,
  -- By the host's clock: a mailbox elsewhere knows nothing of a practice clock.
  sent_host integer,
  next_look_host integer,
  found_host integer,
  folder text,
  -- What the provider says of it (RFC 8601), or what went wrong, in words.
  spf text,
  dkim text,
  dmarc text,
  words text,
  primary key (mailing_id, mailbox_id)
) strict, without rowid;
create index trials_open on trials (state) where state in ('waiting', 'sending', 'sent');
`
