/** Roles, sessions, second factors, and the log of who did what. */
export const team = `
update users set role = 'editor' where role = 'member';
-- Who is removed stays as the name behind what they wrote; they can't sign in.
alter table users add column removed_at integer;
-- Sealed; null: no second factor. A secret counts when a code of it was given.
alter table users add column totp_secret text;
-- The step of the last code that was used, which is not taken again.
alter table users add column totp_step integer;
-- A link with which the password is set anew: the hash of its key, and until when it works.
alter table users add column reset_hash text;
alter table users add column reset_until integer;

create table recovery_codes (
  user_id integer not null references users (id),
  hash text not null,
  primary key (user_id, hash)
) strict, without rowid;

-- Times by the host's clock. The key itself is with the browser alone.
create table sessions (
  id integer primary key autoincrement,
  hash text not null unique,
  user_id integer not null references users (id),
  began_at integer not null,
  used_at integer not null,
  confirmed_at integer not null,
  device text not null,
  address text not null
) strict;
create index sessions_by_user on sessions (user_id);

-- By the host's clock. The name is kept as it was then.
create table audit (
  id integer primary key autoincrement,
  at integer not null,
  user_id integer,
  user_name text not null,
  did text not null,
  what text not null,
  address text not null,
  device text not null
) strict;
create index audit_by_at on audit (at);
create trigger audit_is_never_changed before update on audit begin
  select raise(abort, 'the audit log is never changed');
end;
-- Two years, in ms.
create trigger audit_is_kept_for_two_years before delete on audit
when old.at > (select max(at) from audit) - 63072000000 begin
  select raise(abort, 'the audit log is kept for two years');
end;
`
