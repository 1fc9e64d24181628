import { number, object, string } from 'yup'
import { labelledKinds, LONGEST_LABEL } from '../core/labels'
import { line, seenVersion } from './input-parts'

/** What is told of labels. */

const name = line(LONGEST_LABEL).required('Give the label a name.')
const on = {
  kind: string().oneOf(labelledKinds).required(),
  itemId: number().integer().positive().required(),
}

export const labelOnInput = object({ name, ...on })
export const labelOffInput = object(on)
export const labelInput = object({ name, version: seenVersion })
export const labelMergeInput = object({ into: number().integer().positive().required() })
