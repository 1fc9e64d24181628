/** What is counted of each recipient besides that they are one; `row`: as it is called in the statement. */
const counted: readonly (readonly [name: string, holds: (row: string) => string])[] = [
  ['delivered', (row) => `${row}.state in ('accepted', 'complained')`],
  ['opened', (row) => `${row}.opened_at is not null`],
  ['clicked', (row) => `${row}.clicked_at is not null`],
  ['left_list', (row) => `${row}.left_at is not null`],
  ['bounced', (row) => `${row}.state in ('bounced', 'failed')`],
  ['complained', (row) => `${row}.state = 'complained'`],
  ['deferred', (row) => `${row}.state = 'deferred'`],
]
const columns = ['recipients', ...counted.map(([name]) => name)]
const domainOf = (row: string) =>
  `coalesce((select domain from people where id = ${row}.person_id), '')`

/** Adds a recipient to the counts of a domain, or takes it from them. */
const add = (row: string, domain: string, sign: 1 | -1 = 1, from = 'where true') => `
  insert into mailing_providers (mailing_id, domain, ${columns.join(', ')})
    select ${row}.mailing_id, ${domain}, ${sign}, ${counted.map(([, holds]) => `${sign} * (${holds(row)})`).join(', ')} ${from}
    on conflict do update set ${columns.map((name) => `${name} = ${name} + excluded.${name}`).join(', ')};`

/** Counts a human click on a link, and its person where it is their first on it. */
const follow = `
  insert into mailing_link_totals (mailing_id, no, people, clicks)
    values (new.mailing_id, new.link, not exists (
      select 1 from acts where mailing_id = new.mailing_id and person_id = new.person_id and kind = 'click'
        and link = new.link and verdict = 'human' and id <> new.id), 1)
    on conflict do update set people = people + excluded.people, clicks = clicks + 1;`

/**
 * What came of a mailing by mailbox provider and by link, kept up to date as it comes in: the results of a mailing to
 * a million people are asked for again and again while it goes out. Triggers, so that no way of changing a recipient
 * can forget them. People who were erased have the domain ''.
 */
export const rollUps = `
create table mailing_providers (
  mailing_id integer not null references mailings on delete cascade,
  domain text not null,
  ${columns.map((name) => `${name} integer not null default 0`).join(', ')},
  primary key (mailing_id, domain)
) strict, without rowid;

create trigger providers_planned after insert on recipients
begin
  ${add('new', domainOf('new'))}
end;
create trigger providers_gone after delete on recipients
begin
  ${add('old', domainOf('old'), -1)}
end;
create trigger providers_changed after update of state, opened_at, clicked_at, left_at on recipients
  when ${counted.map(([, holds]) => `(${holds('old')}) <> (${holds('new')})`).join(' or ')}
begin
  update mailing_providers set
    ${counted.map(([name, holds]) => `${name} = ${name} + (${holds('new')}) - (${holds('old')})`).join(', ')}
  where mailing_id = old.mailing_id and domain = ${domainOf('old')};
end;
create trigger providers_handed_on after update of person_id on recipients when old.person_id <> new.person_id
begin
  ${add('new', domainOf('old'), -1)}
  ${add('new', domainOf('new'))}
end;
create trigger providers_moved after update of domain on people when old.domain <> new.domain
begin
  ${add('r', 'old.domain', -1, 'from recipients as r where r.person_id = old.id')}
  ${add('r', 'new.domain', 1, 'from recipients as r where r.person_id = old.id')}
end;

insert into mailing_providers
  select r.mailing_id, coalesce(p.domain, ''), count(*), ${counted.map(([, holds]) => `sum(${holds('r')})`).join(', ')}
  from recipients as r left join people as p on p.id = r.person_id group by 1, 2;

create table mailing_link_totals (
  mailing_id integer not null references mailings on delete cascade,
  no integer not null,
  people integer not null default 0,
  clicks integer not null default 0,
  primary key (mailing_id, no)
) strict, without rowid;

insert into mailing_link_totals
  select mailing_id, link, count(distinct person_id), count(*) from acts
  where kind = 'click' and verdict = 'human' and link is not null group by 1, 2;

create trigger link_followed after update of verdict on acts
  when new.kind = 'click' and new.link is not null and new.verdict = 'human' and old.verdict is null
begin
  ${follow}
end;
create trigger link_followed_and_judged after insert on acts
  when new.kind = 'click' and new.link is not null and new.verdict = 'human'
begin
  ${follow}
end;

create index recipients_unlucky on recipients (mailing_id, state, answer)
  where state in ('failed', 'bounced', 'dropped', 'deferred', 'uncertain');
`
