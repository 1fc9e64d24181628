/**
 * What people newly got, lost, were sent, opened or clicked, noted for the running sequences that begin by it; what nobody
 * watches is not noted. A row stays until all who watch have read it, and its number is never given again.
 */
export const cues = `
create table cues (
  id integer primary key autoincrement,
  person_id integer not null references people on delete cascade,
  -- 'tagged', 'untagged', 'field', 'sent', 'opened', 'clicked'; 'before N': was sent it before sequence N began to watch.
  what text not null,
  -- The tag's or mailing's number, or the field's key.
  key text not null,
  -- The field's new value.
  value text,
  -- When it was sent.
  at integer
) strict;
create index cues_person on cues (person_id);

create table cue_watches (
  what text not null,
  key text not null,
  primary key (what, key)
) strict, without rowid;

-- A row stands in it while changes are made that are to start nothing; it never outlives their transaction.
create table cues_hushed (hushed integer not null) strict;

create trigger cue_tagged after insert on person_tags
when exists (select 1 from cue_watches where what = 'tagged' and key = cast(new.tag_id as text)) begin
  insert into cues (person_id, what, key)
  select new.person_id, 'tagged', new.tag_id where not exists (select 1 from cues_hushed);
end;
-- Somebody who is deleted loses nothing that is to be noted.
create trigger cue_untagged after delete on person_tags
when exists (select 1 from cue_watches where what = 'untagged' and key = cast(old.tag_id as text)) begin
  insert into cues (person_id, what, key)
  select old.person_id, 'untagged', old.tag_id
  where not exists (select 1 from cues_hushed) and exists (select 1 from people where id = old.person_id);
end;
create trigger cue_field after update of fields on people
when exists (select 1 from cue_watches where what = 'field') begin
  insert into cues (person_id, what, key, value)
  select new.id, 'field', w.key, json_extract(new.fields, '$."' || w.key || '"')
  from cue_watches as w
  where w.what = 'field' and not exists (select 1 from cues_hushed)
    and json_extract(new.fields, '$."' || w.key || '"') is not json_extract(old.fields, '$."' || w.key || '"');
end;
create trigger cue_field_new after insert on people
when exists (select 1 from cue_watches where what = 'field') begin
  insert into cues (person_id, what, key, value)
  select new.id, 'field', w.key, json_extract(new.fields, '$."' || w.key || '"')
  from cue_watches as w
  where w.what = 'field' and not exists (select 1 from cues_hushed)
    and json_extract(new.fields, '$."' || w.key || '"') is not null;
end;
create trigger cue_sent after update of accepted_at on recipients
when old.accepted_at is null and new.accepted_at is not null
  and exists (select 1 from cue_watches where what = 'sent' and key = cast(new.mailing_id as text)) begin
  insert into cues (person_id, what, key, at) values (new.person_id, 'sent', new.mailing_id, new.accepted_at);
end;
create trigger cue_opened after update of opened_at on recipients
when old.opened_at is null and new.opened_at is not null
  and exists (select 1 from cue_watches where what = 'opened' and key = cast(new.mailing_id as text)) begin
  insert into cues (person_id, what, key) values (new.person_id, 'opened', new.mailing_id);
end;
create trigger cue_clicked after update of clicked_at on recipients
when old.clicked_at is null and new.clicked_at is not null
  and exists (select 1 from cue_watches where what = 'clicked' and key = cast(new.mailing_id as text)) begin
  insert into cues (person_id, what, key) values (new.person_id, 'clicked', new.mailing_id);
end;
`
