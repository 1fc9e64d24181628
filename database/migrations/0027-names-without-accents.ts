/** Names are looked for without their accents: "orrin" finds "Örrin". The letters that are kept ready leave them out. */
export const namesWithoutAccents = `
drop table people_words;
create virtual table people_words using fts5 (
  words, content = '', tokenize = 'trigram remove_diacritics 1', detail = none
);
insert into people_words (rowid, words)
  select id, normal || ' ' || coalesce(first_name, '') || ' ' || coalesce(last_name, '') from people;
`
