/**
 * Which lists somebody is subscribed to stands with their facts as bits, the list's id being the bit's number, so that the
 * commonest condition of all costs no look-up per person. A list with a higher id than 62 has none and is looked up.
 */
export const listsBesideFacts = `
alter table facts add column lists integer not null default 0;
update facts set lists = t.bits
  from (select person_id, sum(1 << list_id) as bits from subscriptions
    where state = 'subscribed' and list_id <= 62 group by person_id) as t
  where t.person_id = facts.person_id;
create trigger facts_list_joined after insert on subscriptions
  when new.state = 'subscribed' and new.list_id <= 62
begin
  update facts set lists = lists | (1 << new.list_id) where person_id = new.person_id;
end;
create trigger facts_list_changed after update of state on subscriptions
  when new.list_id <= 62 and (new.state = 'subscribed') <> (old.state = 'subscribed')
begin
  update facts set lists = case when new.state = 'subscribed'
      then lists | (1 << new.list_id) else lists & ~(1 << new.list_id) end
    where person_id = new.person_id;
end;
create trigger facts_list_gone after delete on subscriptions
  when old.state = 'subscribed' and old.list_id <= 62
begin
  update facts set lists = lists & ~(1 << old.list_id) where person_id = old.person_id;
end;
`
