/** Something that is kept about people, for how long, and why. */
export interface Retention {
  key: string
  what: string
  /** Days; null: as long as the account, or until the person is erased. */
  days: number | null
  why: string
}

/** For how long everything is kept: this is the only place that says so. The engine deletes what is over. */
export const retention = [
  {
    key: 'people',
    what: 'People, their fields, tags and notes, orders and events',
    days: null,
    why: 'They are what you know of somebody. Erasing the person deletes all of it.',
  },
  {
    key: 'evidence',
    what: 'Evidence of consent: what was agreed to, when, and from where',
    days: null,
    why: 'You have to be able to prove it as long as you mail somebody. Erasing the person deletes it.',
  },
  {
    key: 'results',
    what: 'Who got which mailing, opened and clicked',
    days: null,
    why: 'Segments and results are computed from it. After erasing, the counts stay and nobody is behind them.',
  },
  {
    key: 'erased',
    what: 'Who was erased, as a hash of their address',
    days: null,
    why: 'So that no import brings them back. Nobody can read an address from it.',
  },
  {
    key: 'audit',
    what: 'The audit log',
    days: 730,
    why: 'To find out later who did what. Nobody can change it before.',
  },
  {
    key: 'reports',
    what: 'Bounces, complaints, replies and whatever else came back, as it came in',
    days: 90,
    why: 'To look up what a mail server said. What follows from it, and the words of a reply, stay with the person and the mailing.',
  },
  {
    key: 'notices',
    what: 'Rows of imported files that were refused or looked doubtful',
    days: 90,
    why: 'So that you can mend and import them again.',
  },
  {
    key: 'imports',
    what: 'Imported files, and what an import changed',
    days: 30,
    why: 'An import can be undone for so long.',
  },
  {
    key: 'exports',
    what: 'Exports',
    days: 30,
    why: 'Their links work for so long. They go at once when somebody is erased.',
  },
  {
    key: 'copies',
    what: 'Copies of letters that were sent to look at them',
    days: 30,
    why: 'They may show what one reader gets.',
  },
  {
    key: 'requests',
    what: 'What readers asked for on their own page that a mail to them confirms',
    days: 30,
    why: 'Its link works for two weeks at most. What came of it stays with the person.',
  },
  {
    key: 'sign-ups',
    what: 'What was sent in by a form and never confirmed',
    days: 30,
    why: 'To see what is kept away, and why. Afterwards it counts still, and nobody is behind it; what was confirmed stays with the person, as evidence.',
  },
  {
    key: 'webhooks',
    what: 'What programs were told of sign-ups',
    days: 30,
    why: 'To see what they answered, and to send it again. Who signed up stays with the person.',
  },
  {
    key: 'hand-overs',
    what: 'What other programs were told by steps of sequences, and answered',
    days: 365,
    why: 'Later steps may ask what was answered; after a year nobody waits for it any more.',
  },
  {
    key: 'sessions',
    what: 'Where somebody who works here was signed in',
    days: 90,
    why: 'A session is over then at the latest; it goes when it ends.',
  },
  {
    key: 'answers',
    what: 'Answers to programs',
    days: 7,
    why: 'A request that is sent again within this time is taken once.',
  },
] as const satisfies readonly Retention[]

export type RetentionKey = (typeof retention)[number]['key']
type Limited = Extract<(typeof retention)[number], { days: number }>['key']

/** For how many days something is kept that is not kept for good. */
export function daysKept(key: Limited): number {
  return retention.find((one) => one.key === key)!.days!
}
