import { ownFields, type FieldChange } from '~~/database/people'
import { addJob } from '~~/database/jobs'
import { fieldJobInput } from '~~/shared/people-inputs'

/** Asks the engine to make a field one of another kind, or to join it to another. */
export default defineEventHandler(async (event) => {
  const { kind, into } = await readInput(event, fieldJobInput)
  const { db, clock } = satchel()
  const key = getRouterParam(event, 'key')!
  const keys = ownFields(db).map((field) => field.key)
  if (!keys.includes(key)) throw notFound('This field is not on file.')
  if ((kind === undefined) === (into === undefined))
    throw refused('Name either another kind or another field.')
  if (into !== undefined && (into === key || !keys.includes(into)))
    throw fieldFault('into', 'Choose another field.')
  const change: FieldChange =
    kind === undefined ? { do: 'merge', key, into: into! } : { do: 'retype', key, kind }
  return { job: addJob(db, 'change-field', change, clock()) }
})
