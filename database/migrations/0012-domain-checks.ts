/** What name servers said of the sender's domain when they were asked last. */
export const domainChecks = `
create table domain_checks (
  domain text primary key,
  asked_at integer not null,
  -- Null until the engine has asked since.
  checked_at integer,
  -- JSON: see core/authentication.
  result text
) strict, without rowid;
`
