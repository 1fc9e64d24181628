import { letterToStartFrom } from '~~/cases/letters'

/** The letter of the template with a key; 404 where it is not there any more. */
export function templateWith(key: string) {
  const found = letterToStartFrom(satchel().db, key)
  if (!found) throw notFound('This template is not there any more.')
  return found
}
