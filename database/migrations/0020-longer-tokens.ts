/** Public tokens carry 128 bits from now on. Those of 80 bits are in mail that has gone out, and stay valid there. */
export const longerTokens = `
-- The last mailing whose tokens may be short; -1: none.
alter table account add column short_tokens_up_to integer not null default -1;
update account set short_tokens_up_to = (select coalesce(max(id), 0) from mailings);
`
