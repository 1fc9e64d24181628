/** Who is left out of a mailing: members of segments, and who has had enough mail of late; and words of one's own. */
export const audiences = `
-- JSON: a rule whose members are not mailed.
alter table mailings add column left_out text;
-- 1: it goes also to those whom the frequency cap would spare.
alter table mailings add column past_cap integer not null default 0;
-- At most so many mailings in so many days to one person; null: no cap.
alter table account add column cap_mailings integer;
alter table account add column cap_days integer not null default 7;

-- Words that the account spells as it likes, in lower case.
create table own_words (word text primary key) strict, without rowid;
`
