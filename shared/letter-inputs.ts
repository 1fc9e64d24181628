import { boolean, mixed, number, object, string } from 'yup'
import { line } from './input-parts'

/** What is told of letters and of what they are made from. */

export const ownWordInput = object({ word: line(60).required('Which word?') })

export const letterheadInput = object({
  name: line(100).required('Give the letterhead a name.'),
  look: mixed<object>().required(),
  /** As it was read; a new one has none. */
  version: string().max(40).default(''),
})

export const ownLetterheadInput = object({
  look: mixed<object>().required(),
  version: string().max(40).required(),
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

export const commentInput = object({
  blockId: string()
    .matches(/^[\w-]{1,40}$/, 'Choose a block.')
    .required('Choose a block.'),
  text: string().trim().required('Write something.').max(2_000, 'At most 2,000 characters.'),
  answerTo: number().integer().positive().nullable().default(null),
})
