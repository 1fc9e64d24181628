/** A job whose process ends at it again and again fails, instead of being begun for ever. */
export const jobsThatDie = `
-- How often the process that carried it out ended at it.
alter table jobs add column deaths integer not null default 0;
`
