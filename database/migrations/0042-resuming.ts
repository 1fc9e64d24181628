/** When a sequence went on after a pause, and over how long those who waited meanwhile go on. */
export const resuming = `
alter table sequences add column resumed_at integer not null default 0;
-- Milliseconds; 0: all at once.
alter table sequences add column spread integer not null default 0;
`
