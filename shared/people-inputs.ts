import { array, boolean, mixed, number, object, string, type InferType } from 'yup'
import {
  checkAddress,
  delimiters,
  encodings,
  fieldKinds,
  LONGEST_TASK,
  tagColors,
} from '../core/people'
import { isDay } from '../core/time'
import { languageNames, type ReaderLanguage } from '../core/readers'
import { address, line, seenVersion } from './input-parts'

/** What is told of people, their fields, tags and lists, and of files of them. */

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
  delimiter: string()
    .oneOf([...delimiters])
    .required(),
  /** The row of the header, from 1; 0: the file has none. */
  headerRow: number().integer().min(0).max(1_000).default(1),
  /** Of several rows with one address: the first counts, or what a later one says replaces it. */
  repeats: string().oneOf(['first', 'last']).default('last'),
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

export const leaveOutInput = object({
  /** Null: every doubtful row. */
  row: number().integer().positive().nullable().defined(),
  out: boolean().required(),
})

export const startImportInput = object({
  /** Whether those who join a list by it come into the sequences that start so. */
  startSequences: boolean().default(false),
})

export const mappingInput = object({
  header: array(string().defined()).max(200).required(),
})

export type ImportInput = InferType<typeof importInput>

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
  /** Where this person comes from, in the user's words. */
  source: line(100).default(''),
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

export const peopleActs = [
  'tag',
  'untag',
  'list',
  'unlist',
  'set-aside',
  'take-back',
  'let-in',
  'let-out',
] as const

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
  sequenceId: number()
    .integer()
    .positive()
    .when('act', {
      is: (act: string) => act === 'let-in' || act === 'let-out',
      then: (schema) => schema.required('Choose a sequence.'),
    }),
  reason: reason.when('act', {
    is: (act: string) => act === 'list' || act === 'unlist' || act === 'set-aside',
    then: (schema) => schema.required('Say why; it is kept as evidence.'),
  }),
})

export const noteInput = object({
  text: string().trim().required('Write a note.').max(2_000, 'At most 2,000 characters.'),
})

/** Something that is to be done about somebody; `to`: who of the team does it, null: anybody. */
export const taskInput = object({
  text: line(LONGEST_TASK).required('Write what is to be done.'),
  due: string()
    .required('Choose until when.')
    .test('day', 'This is not a day.', (day) => isDay(day)),
  to: address.nullable().optional().default(null),
})

export const taskDoneInput = object({ done: boolean().required() })

export const mergeInput = object({ gone: number().integer().positive().required() })

export const eraseInput = object({ address: string().required('Write the address to make sure.') })

export const fieldInput = object({
  name: line(60).required('Give the field a name.'),
  kind: string().oneOf(fieldKinds).required('Choose what it holds.'),
})

export const fieldChangeInput = object({
  name: line(60).min(1, 'Give the field a name.'),
  retired: boolean(),
  /** Whether readers see and change it on their own page. */
  readers: boolean(),
  version: seenVersion,
})

export const fieldJobInput = object({
  kind: string().oneOf(fieldKinds),
  into: string().matches(/^[a-z_][a-z0-9_]*$/),
})

export const tagInput = object({
  name: line(60).min(1, 'Give the tag a name.'),
  color: string().oneOf(tagColors),
  version: seenVersion,
})

export const tagJoinInput = object({ into: number().integer().positive().required() })

export const listChangeInput = object({
  name: line(100).required('Give the list a name.'),
  description: line(300).default(''),
  publicName: line(100).required('Say what readers know it by.'),
  publicAbout: line(300).default(''),
  publicOften: line(100).default(''),
  offered: boolean().default(false),
  language: string()
    .oneOf(Object.keys(languageNames) as ReaderLanguage[])
    .nullable()
    .default(null),
  version: seenVersion,
})
