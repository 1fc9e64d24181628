/**
 * The hours of sequences' mail are each recipient's own, since it was accepted for them; so far they were counted since the
 * sequence began. Leaving is counted up to a time, too, where mailings are compared at the same age.
 */
export const ownHours = `
delete from mailing_hours where mailing_id in (select id from mailings where sequence_id is not null);
insert into mailing_hours (mailing_id, hour, opens, clicks)
select mailing_id, hour, sum(opens), sum(clicks) from (
  select r.mailing_id, max(0, (r.opened_at - coalesce(r.accepted_at, r.at)) / 3600000) as hour, 1 as opens, 0 as clicks
  from recipients as r join mailings as m on m.id = r.mailing_id
  where m.sequence_id is not null and r.opened_at is not null
  union all
  select r.mailing_id, max(0, (r.clicked_at - coalesce(r.accepted_at, r.at)) / 3600000), 0, 1
  from recipients as r join mailings as m on m.id = r.mailing_id
  where m.sequence_id is not null and r.clicked_at is not null
) group by mailing_id, hour;
create index recipients_who_left on recipients (mailing_id, left_at) where left_at is not null;
`
