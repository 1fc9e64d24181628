/**
 * What an import was told of its file: where the header stands, and which of repeated rows wins; rows that are left out by
 * hand; which fields and tags it made. Where people come from. Nobody is subscribed any more without the words they agreed to.
 */
export const askedImports = `
-- The row of the header, from 1 (0: none), and the first row about a person.
alter table imports add column header_row integer not null default 1;
alter table imports add column first_row integer not null default 2;
alter table imports add column repeats text not null default 'last';
alter table import_notices add column left_out integer not null default 0;

create table import_made (
  import_id integer not null references imports on delete cascade,
  kind text not null,
  ref text not null,
  primary key (import_id, kind, ref)
) strict, without rowid;

-- 'import:12', 'api', 'by hand: festival desk'; null: not known.
alter table people add column source text;
update people set source = 'import:' || a.import_id
  from import_added a where people.id between a.first_id and a.last_id;

drop trigger evidence_is_never_updated;
insert into wordings (text) select 'The words were not kept at the time.'
  where exists (select 1 from evidence where state in ('subscribed', 'pending') and wording_id is null
    and way not in ('merged', 'import undone'))
  on conflict do nothing;
update evidence set wording_id = (select id from wordings where text = 'The words were not kept at the time.')
  where state in ('subscribed', 'pending') and wording_id is null and way not in ('merged', 'import undone');
create trigger evidence_is_never_updated before update on evidence
begin select raise(abort, 'evidence is never updated'); end;
create trigger evidence_has_words before insert on evidence
  when new.state in ('subscribed', 'pending') and new.wording_id is null
    and new.way not in ('merged', 'import undone')
begin
  select raise(abort, 'A subscription needs the words that were agreed to.');
end;
`
