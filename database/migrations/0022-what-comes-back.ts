/**
 * What comes back by mail: why a message did not arrive, and replies by people, which are kept, passed on and count as
 * engagement (3: log2 of it is 1.584962500721156).
 */
const keenness = `keenness = max(coalesce(keenness, -1e300), 1.584962500721156 + new.replied_at / 3888000000.0)
      + log2(1 + pow(2, -min(abs(coalesce(keenness, -1e300) - 1.584962500721156 - new.replied_at / 3888000000.0), 1000)))`

export const whatComesBack = `
alter table recipients add column failure text;
alter table recipients add column replied_at integer;
update recipients set failure = case
    when answer like 'There is no such mailbox.%' or answer like 'The mailbox is closed.%' then 'no such address'
    when answer like 'The mailbox is full.%' then 'mailbox full'
    when answer like 'The message is too large%' then 'too large'
    when answer like 'The provider refuses our mail by its policy.%' then 'policy or authentication'
    when answer like 'The provider asks us%' or answer like 'The provider could not be reached.%' then 'busy'
    else 'unknown' end
  where state in ('failed', 'bounced');
create index recipients_replied on recipients (mailing_id, replied_at) where replied_at is not null;

create trigger facts_replied_new after insert on recipients when new.replied_at is not null
begin
  update facts set ${keenness} where person_id = new.person_id;
end;
create trigger facts_replied after update of replied_at on recipients
  when old.replied_at is null and new.replied_at is not null
begin
  update facts set ${keenness} where person_id = new.person_id;
end;

-- 'kept': replies come here, are kept and passed on; 'sender': they go to the sender's own address, past us.
alter table account add column replies text not null default 'sender';

create table replies (
  id integer primary key autoincrement,
  mailing_id integer not null,
  person_id integer not null,
  at integer not null,
  from_name text not null,
  from_address text not null,
  subject text not null,
  text text not null,
  report_id integer,
  -- When it is to be passed on; null: it has been, or never will be.
  pass_on_due integer,
  pass_on_tries integer not null default 0,
  passed_on_at integer,
  pass_on_note text
);
create index replies_by_person on replies (person_id, at);
create index replies_by_mailing on replies (mailing_id, at);
create index replies_to_pass_on on replies (pass_on_due) where pass_on_due is not null;
`
