/** Labels, on mailings, sequences and sign-ups. */
export const labels = `
create table labels (
  id integer primary key autoincrement,
  name text not null,
  -- The name by which two are one: in small letters.
  key text not null,
  deleted_at integer
) strict;
create unique index labels_by_key on labels (key) where deleted_at is null;
create table label_uses (
  kind text not null check (kind in ('mailing', 'sequence', 'sign-up')),
  item_id integer not null,
  label_id integer not null references labels (id) on delete cascade,
  primary key (kind, item_id, label_id)
) strict, without rowid;
create index label_uses_by_label on label_uses (label_id);
create trigger labels_go_with_mailings after delete on mailings begin
  delete from label_uses where kind = 'mailing' and item_id = old.id;
end;
create trigger labels_go_with_sequences after delete on sequences begin
  delete from label_uses where kind = 'sequence' and item_id = old.id;
end;
create trigger labels_go_with_sign_ups after delete on sign_ups begin
  delete from label_uses where kind = 'sign-up' and item_id = old.id;
end;
`
