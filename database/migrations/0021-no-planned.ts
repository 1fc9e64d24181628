/**
 * Nobody has ever been *planned*: who is on the list of recipients is queued. The state goes, with its column in the
 * totals, and the index of those to be claimed no longer names it.
 */
export const noPlanned = `
update recipients set state = 'queued' where state in ('planned', 'queued', 'deferred') and state = 'planned';
drop index recipients_due;
create index recipients_due on recipients (mailing_id, due) where state in ('queued', 'deferred');
alter table mailing_totals drop column planned;
`
