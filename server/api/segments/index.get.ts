import { readSegments } from '~~/database/segments'

/** The saved segments, without how many are in them: see sizes. */
export default defineEventHandler(() =>
  readSegments(satchel().db).map(({ id, name, frozenAt }) => ({ id, name, frozenAt })),
)
