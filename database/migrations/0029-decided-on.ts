/** The figures a test was decided on, as they were then: JSON, see `DecidedOn`. Null of decisions made before they were kept. */
export const decidedOn = `
alter table mailings add column decided_on text;
`
