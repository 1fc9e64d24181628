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

export const sequenceMailInput = object({ name: line(120).required('Give the mail a name.') })

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
