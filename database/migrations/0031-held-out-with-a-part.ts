/**
 * Who is held out belongs to the part of the mailing they would have got it with, from when on their goal's window counts;
 * null while that part has not begun. Of mailings of earlier versions it began for all of them with the mailing.
 */
export const heldOutWithAPart = `
alter table holdouts add column part integer;
update holdouts set part = 0;
`
