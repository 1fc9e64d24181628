/** What a recipient opened a mailing on first: the user agent of their first act. Rules ask for its class. */
export const openedOn = `
alter table recipients add column opened_on integer references agents;
update recipients set opened_on = first.agent_id
from (
  select mailing_id, person_id, agent_id, min(id) from acts where verdict = 'human' group by mailing_id, person_id
) as first
where first.mailing_id = recipients.mailing_id and first.person_id = recipients.person_id
  and recipients.opened_at is not null;
`
