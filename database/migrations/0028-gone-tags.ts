/** What deleted tags were called: rules that ask for one go on naming it. */
export const goneTags = `
create table gone_tags (id integer primary key, name text not null) strict;
create trigger tags_name_kept after delete on tags
begin
  insert into gone_tags (id, name) values (old.id, old.name) on conflict do nothing;
end;
`
