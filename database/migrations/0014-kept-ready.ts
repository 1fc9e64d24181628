/** The times of the last mailings before the last, newest first; in `facts` as plain columns. */
const earlier = ['sent_2nd_at', 'sent_3rd_at', 'sent_4th_at', 'sent_5th_at']

/** Takes its place among the times, whenever it was: each is the later of itself and what the one before it gives way. */
const sentAt = (time: string) =>
  earlier
    .map((column, i) => {
      const before = i === 0 ? 'coalesce(last_sent_at, 0)' : earlier[i - 1]
      return `${column} = max(${column}, min(${before}, ${time}))`
    })
    .join(', ')

/**
 * What is asked often of a million people, kept ready: where a part of an address or a name stands, when somebody
 * was mailed lately, and who clicked.
 */
export const keptReady = `
-- Three letters at a time, of each address and name; see https://sqlite.org/fts5.html#the_trigram_tokenizer.
create virtual table people_words using fts5 (words, content = '', tokenize = 'trigram', detail = none);
insert into people_words (rowid, words)
  select id, normal || ' ' || coalesce(first_name, '') || ' ' || coalesce(last_name, '') from people;

create trigger words_of_person after insert on people
begin
  insert into people_words (rowid, words)
    values (new.id, new.normal || ' ' || coalesce(new.first_name, '') || ' ' || coalesce(new.last_name, ''));
end;
create trigger words_gone after delete on people
begin
  insert into people_words (people_words, rowid, words)
    values ('delete', old.id, old.normal || ' ' || coalesce(old.first_name, '') || ' ' || coalesce(old.last_name, ''));
end;
create trigger words_changed after update of normal, first_name, last_name on people
  when old.normal <> new.normal or old.first_name is not new.first_name or old.last_name is not new.last_name
begin
  insert into people_words (people_words, rowid, words)
    values ('delete', old.id, old.normal || ' ' || coalesce(old.first_name, '') || ' ' || coalesce(old.last_name, ''));
  insert into people_words (rowid, words)
    values (new.id, new.normal || ' ' || coalesce(new.first_name, '') || ' ' || coalesce(new.last_name, ''));
end;

-- "At most so many mailings in so many days" asks when the last ones were; 0 where there was none.
${earlier.map((column) => `alter table facts add column ${column} integer not null default 0;`).join('\n')}
update facts set ${earlier.map((column, i) => `${column} = t.t${i}`).join(', ')}
  from (
    select person_id, ${earlier.map((_, i) => `coalesce(max(accepted_at) filter (where place = ${i + 2}), 0) as t${i}`).join(', ')}
    from (select person_id, accepted_at, row_number() over (partition by person_id order by accepted_at desc) as place
      from recipients where accepted_at is not null)
    where place <= 5 group by person_id) as t
  where t.person_id = facts.person_id;

drop trigger facts_sent_new;
drop trigger facts_sent;
create trigger facts_sent_new after insert on recipients when new.accepted_at is not null
begin
  update facts set sent = sent + 1, last_sent_at = max(coalesce(last_sent_at, new.accepted_at), new.accepted_at),
    ${sentAt('new.accepted_at')}
  where person_id = new.person_id;
end;
create trigger facts_sent after update of accepted_at on recipients
  when old.accepted_at is null and new.accepted_at is not null
begin
  update facts set sent = sent + 1, last_sent_at = max(coalesce(last_sent_at, new.accepted_at), new.accepted_at),
    ${sentAt('new.accepted_at')}
  where person_id = new.person_id;
end;

create index recipients_who_clicked on recipients (mailing_id, person_id, clicked_at) where clicked_at is not null;
`
