/** Hours of the day in which sequences write nothing, by the account's clock; null: none. */
export const quietHours = `
alter table account add column quiet_from integer check (quiet_from between 0 and 23);
alter table account add column quiet_to integer check (quiet_to between 0 and 23);
`
