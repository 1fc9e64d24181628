import { array, boolean, mixed, number, object, string, type InferType } from 'yup'
import { checkAddress, encodings, fieldKinds, tagColors } from '../core/people'
import { isZone } from '../core/time'

/** One schema for each request with a body; its form in the page and its handler share it. */

const address = string()
  .trim()
  .required('Write an e-mail address.')
  .test('address', 'This is not an e-mail address.', (text) => checkAddress(text ?? '').ok)

const line = (longest: number) =>
  string()
    .trim()
    .max(longest, `At most ${longest} characters.`)
    .matches(/^[^\p{Cc}]*$/u, 'No line breaks or control characters, please.')

export const signInInput = object({ address, password: string().required('Write your password.') })

export const ownerInput = object({
  name: line(100).required('Write your name.'),
  address,
  password: string()
    .required('Choose a password.')
    .min(12, 'At least 12 characters.')
    .max(200, 'At most 200 characters.'),
  accountName: line(100).required('Write what your readers know you by.'),
  zone: string()
    .required()
    .test('zone', 'This is not a time zone.', (zone) => isZone(zone ?? '')),
})

export const userInput = object({
  name: line(100).required('Write their name.'),
  address,
  password: string()
    .required('Choose a password for them.')
    .min(12, 'At least 12 characters.')
    .max(200, 'At most 200 characters.'),
})

export const accountInput = object({
  name: line(100).required('Write what your readers know you by.'),
  sender_name: line(100).required('Write who the letters come from.'),
  sender_address: address,
  postal_address: string().trim().max(500, 'At most 500 characters.').defined(),
  zone: string()
    .required()
    .test('zone', 'This is not a time zone.', (zone) => isZone(zone ?? '')),
  pace_per_minute: number()
    .integer('A whole number.')
    .min(1, 'At least 1.')
    .max(1_000_000, 'At most 1,000,000.')
    .nullable()
    .defined(),
  cap_mailings: number()
    .integer('A whole number.')
    .min(1, 'At least 1.')
    .max(1_000, 'At most 1,000.')
    .nullable()
    .default(null),
  cap_days: number()
    .integer('A whole number.')
    .min(1, 'At least 1.')
    .max(365, 'At most 365.')
    .default(7),
})

export const clockInput = object({
  rate: number().oneOf([1, 60, 3600]),
  jumpTo: number().integer().positive(),
})

export const listInput = object({
  name: line(100).required('Give the list a name.'),
  description: line(300).default(''),
})

export const importInput = object({
  file: string()
    .required()
    .matches(/^[0-9a-f-]{36}$/, 'Choose the file again.'),
  name: line(200).required(),
  encoding: string().oneOf(encodings).required(),
  delimiter: string().oneOf([',', ';', '\t', '|']).required(),
  plans: array(mixed<object>().required()).min(1).max(200).required(),
  listId: number().integer().positive().nullable().defined(),
  statement: line(500).default(''),
  consented: boolean().default(false),
  mode: string().oneOf(['both', 'add', 'update']).default('both'),
  clearEmpty: boolean().default(false),
  tag: line(60).nullable().default(null),
  /** Only count what would happen; nothing is written before it is started. */
  preview: boolean().default(false),
})

export const startImportInput = object({
  /** Whether those who join a list by it come into the sequences that start so. */
  startSequences: boolean().default(false),
})

const sequenceName = line(100).required('Give the sequence a name.')
export const newSequenceInput = object({ name: sequenceName })
export const sequenceInput = object({
  name: sequenceName,
  listId: number().integer().positive().nullable().defined(),
  map: mixed<object>().required(),
  revision: number().integer().positive().required(),
})
export const sequenceMailInput = object({ name: line(120).required('Give the mail a name.') })

export const mappingInput = object({
  header: array(string().defined()).max(200).required(),
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
})

export const ownWordInput = object({ word: line(60).required('Which word?') })

export const letterheadInput = object({
  name: line(100).required('Give the letterhead a name.'),
  look: mixed<object>().required(),
})

export const letterInput = object({
  subject: string().max(500, 'At most 500 characters.').defined(),
  previewText: string().max(500, 'At most 500 characters.').defined(),
  document: mixed<object>().required(),
  version: number().integer().min(1).required(),
})

export const stampInput = object({
  name: line(100).required('Give the stamp a name.'),
  row: mixed<object>().required(),
})

export const stampChangeInput = object({
  name: line(100).min(1, 'Give the stamp a name.'),
  row: mixed<object>(),
  version: number().integer().min(1),
})

export const templateInput = object({
  mailingId: number().integer().min(1).required(),
  name: line(100).required('Give the template a name.'),
  about: line(200).default(''),
})

export const approvalInput = object({
  ofId: number().integer().min(1).required('Choose who is to look at it.'),
  note: string().trim().max(1_000, 'At most 1,000 characters.').default(''),
})

export const verdictInput = object({
  verdict: string()
    .oneOf(['approved', 'not yet'] as const)
    .required(),
  words: string().trim().max(1_000, 'At most 1,000 characters.').default(''),
  sawVersion: number().integer().min(1).required(),
})

export const presenceInput = object({
  tab: string()
    .matches(/^[\w-]{1,40}$/)
    .required(),
  blockId: string()
    .matches(/^[\w-]{1,60}$/)
    .nullable()
    .default(null),
  leaves: boolean().default(false),
})

export const pictureInput = object({
  name: line(200).min(1, 'Give the picture a name.'),
  folder: line(60),
  alt: line(500),
})

const share = () => number().min(0).max(1).required()
export const cutInput = object({
  left: share(),
  top: share(),
  width: share().moreThan(0, 'Nothing would be left.'),
  height: share().moreThan(0, 'Nothing would be left.'),
  turn: number().oneOf([0, 1, 2, 3]).required(),
})

export const feedInput = object({
  url: string()
    .url('Give the address of a feed: it begins with https://.')
    .max(2_000, 'This address is too long.')
    .required('Give the address of the feed.'),
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

export const dispatchInput = object({
  at: number().integer().positive().nullable().defined(),
})

export type AccountInput = InferType<typeof accountInput>
export type ImportInput = InferType<typeof importInput>
export type OwnerInput = InferType<typeof ownerInput>

const ruleShape = mixed<object>().required('A rule is missing.')

export const segmentQuestionInput = object({
  rule: ruleShape,
  segmentId: number().integer().positive().nullable().default(null),
  offset: number().integer().min(0).default(0),
})

export const ruleTextInput = object({ text: string().max(20_000, 'This is too long.').defined() })

export const whyInput = object({
  rule: ruleShape,
  personId: number().integer().positive().required(),
})

export const segmentInput = object({
  name: line(100).required('Give the segment a name.'),
  rule: ruleShape,
})

export const segmentChangeInput = segmentInput.shape({
  version: number().integer().min(1).required(),
})

const reason = line(300)
const values = mixed<Record<string, unknown>>().default({})

export const personInput = object({
  address,
  values,
  lists: array(number().integer().positive().required()).max(50).default([]),
  tags: array(line(60).required()).max(50).default([]),
  /** Why this person may be mailed; needed as soon as a list is named. */
  reason: reason.when('lists', {
    is: (lists: unknown[]) => lists?.length > 0,
    then: (schema) => schema.required('Say why this person may be mailed: it is kept as evidence.'),
    otherwise: (schema) => schema.default(''),
  }),
})

export const personChangeInput = object({
  address: string()
    .trim()
    .test(
      'address',
      'This is not an e-mail address.',
      (text) => text === undefined || checkAddress(text).ok,
    ),
  values,
})

export const peopleActs = ['tag', 'untag', 'list', 'unlist', 'set-aside', 'take-back'] as const

export const peopleActInput = object({
  ids: array(number().integer().positive().required())
    .min(1, 'Choose somebody first.')
    .max(20_000, 'At most 20,000 people at once. Make a segment for more.')
    .required(),
  act: string().oneOf(peopleActs).required(),
  tag: line(60).when('act', {
    is: (act: string) => act === 'tag' || act === 'untag',
    then: (schema) => schema.required('Name a tag.'),
  }),
  listId: number().integer().positive(),
  reason: reason.when('act', {
    is: (act: string) => act === 'list' || act === 'unlist' || act === 'set-aside',
    then: (schema) => schema.required('Say why; it is kept as evidence.'),
  }),
})

export const commentInput = object({
  blockId: string()
    .matches(/^[\w-]{1,40}$/, 'Choose a block.')
    .required('Choose a block.'),
  text: string().trim().required('Write something.').max(2_000, 'At most 2,000 characters.'),
  answerTo: number().integer().positive().nullable().default(null),
})

export const noteInput = object({
  text: string().trim().required('Write a note.').max(2_000, 'At most 2,000 characters.'),
})

export const mergeInput = object({ gone: number().integer().positive().required() })

export const eraseInput = object({ address: string().required('Write the address to make sure.') })

export const tokenInput = object({ name: line(100).required('Say which program it is for.') })

export const fieldInput = object({
  name: line(60).required('Give the field a name.'),
  kind: string().oneOf(fieldKinds).required('Choose what it holds.'),
})

export const fieldChangeInput = object({
  name: line(60).min(1, 'Give the field a name.'),
  retired: boolean(),
})

export const fieldJobInput = object({
  kind: string().oneOf(fieldKinds),
  into: string().matches(/^[a-z_][a-z0-9_]*$/),
})

export const tagInput = object({
  name: line(60).min(1, 'Give the tag a name.'),
  color: string().oneOf(tagColors),
})

export const tagJoinInput = object({ into: number().integer().positive().required() })

export const listChangeInput = object({
  name: line(100).required('Give the list a name.'),
  description: line(300).default(''),
  publicName: line(100).required('Say what readers know it by.'),
  publicAbout: line(300).default(''),
})

const query = string().trim().max(20_000, 'At most 20,000 characters.').required('Write a query.')

export const sqlInput = object({ query })

export const sqlSegmentInput = object({
  name: line(100).required('Give the segment a name.'),
  query,
})
