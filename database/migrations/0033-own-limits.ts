/**
 * What readers ask for by themselves: no mailings for some weeks, at most one in so many days; and what they changed on
 * their own page, which is never changed afterwards. Fields can be opened so that readers see and change their value.
 */
export const ownLimits = `
create table own_limits (
  person_id integer primary key references people on delete cascade,
  paused_at integer,
  paused_until integer,
  one_in_days integer
) strict;
create index own_limits_paused on own_limits (paused_until) where paused_until is not null;
create table own_changes (
  id integer primary key,
  person_id integer not null references people on delete cascade,
  at integer not null,
  what text not null,
  detail text not null,
  wording_id integer not null references wordings,
  mailing_id integer,
  ip text,
  agent text
) strict;
create index own_changes_by_person on own_changes (person_id);
create trigger own_changes_are_never_updated before update on own_changes
begin select raise(abort, 'what readers changed is never updated'); end;
alter table fields add column readers integer not null default 0;
`
