import { LONGEST_SPREAD } from '../core/sequences'
import { array, boolean, mixed, number, object, string } from 'yup'
import { address, line } from './input-parts'

/** What is told of mailings and sequences. */

const sequenceName = line(100).required('Give the sequence a name.')

export const newSequenceInput = object({ name: sequenceName })

export const sequenceInput = object({
  name: sequenceName,
  listId: number().integer().positive().nullable().defined(),
  map: mixed<object>().required(),
  revision: number().integer().positive().required(),
})

/** Which revision was seen by who starts it. */
export const sequenceStartInput = object({
  revision: number().integer().positive().required(),
  /** Whether those inside are moved to it. */
  moves: boolean().default(false),
  /** Over how long those go on who waited through a pause, ms. */
  spread: number().integer().min(0).max(LONGEST_SPREAD).default(0),
})

/** Who is let in by hand: one person, or everybody in a segment. */
export const letInInput = object({
  personId: number().integer().positive(),
  segmentId: number().integer().positive(),
  importId: number().integer().positive(),
}).test(
  'one',
  'Say who is let in.',
  (who) => Object.values(who).filter((one) => one !== undefined).length === 1,
)

/** One that ships, by its key; or one of the account's own, by its number. */
export const templateInput = object({
  key: line(40),
  kept: number().integer().positive(),
})

/** A file of a sequence, as the text that it is. */
export const sequenceFileInput = object({ text: string().max(1_900_000).required() })

export const keptSequenceInput = object({ name: line(80).required(), about: line(200).default('') })

export const archivedInput = object({ archived: boolean().required() })

/** The map as it stands on the page; with `personId`, of one person alone. */
export const rehearsalInput = object({
  map: mixed<object>().required(),
  listId: number().integer().positive().nullable().defined(),
  personId: number().integer().positive(),
  /** Which version stands beside it; absent: the one that ran last. */
  beside: number().integer().positive(),
})

/** By which way of a split everybody goes from now on; null: by its lot. */
export const splitInput = object({
  step: string().max(40).required(),
  way: number().integer().min(0).max(4).nullable().defined(),
  /** Since when the split was as it was shown. */
  since: number().integer().required(),
})

export const takeOutInput = object({ personId: number().integer().positive().required() })

export const sequenceMailInput = object({
  name: line(120).required('Give the mail a name.'),
  /** A mail of a sequence whose letter it begins with. */
  copyOf: number().integer().positive(),
})

export const mailingInput = object({
  name: line(120).min(1, 'Give the mailing a name.'),
  listId: number().integer().positive().nullable(),
  joinedWithinDays: number()
    .integer('A whole number of days.')
    .min(1, 'At least 1 day.')
    .max(3650, 'At most 3650 days.')
    .nullable(),
  segmentIds: array(number().integer().positive().required()).max(20, 'At most 20 segments.'),
  leftOutIds: array(number().integer().positive().required()).max(20, 'At most 20 segments.'),
  pastCap: boolean(),
  letterheadId: number().integer().positive().nullable(),
  /** As it was read; without it, it is changed whatever others did meanwhile. */
  version: string().max(40),
})

export const overruleInput = object({
  reason: string()
    .trim()
    .max(500, 'At most 500 characters.')
    .required('Say why it may go out all the same.'),
})

export const winnerInput = object({ variant: number().integer().min(0).max(4).required() })

export const copiesInput = object({
  to: array(address).min(1, 'Write an address.').max(10, 'At most ten copies at once.').required(),
})

const mark = () => string().max(40).defined()

export const dispatchInput = object({
  at: number().integer().positive().nullable().defined(),
  /** What was shown of what will happen; see `Fingerprint`. */
  seen: object({
    letter: mark(),
    plan: mark(),
    list: mark(),
    rule: mark(),
    sender: mark(),
    when: mark(),
    people: number().integer().min(0).required(),
  }).required('Look at what will happen first, then send it.'),
})

export const moveInput = object({
  wish: string()
    .matches(/^\d{4}-\d\d-\d\dT\d\d:\d\d$/, 'Give a day and a time.')
    .required('Give a day and a time.'),
})

export const planInput = object({
  plan: mixed<object>().required(),
  version: string().max(40).required(),
})
