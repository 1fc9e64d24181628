/** Reports say whom they are about, so that exporting and erasing somebody reaches them. */
export const retentionOfReports = `
alter table reports add column person_id integer;
create index reports_by_person on reports (person_id) where person_id is not null;
create index reports_by_at on reports (at);
`
