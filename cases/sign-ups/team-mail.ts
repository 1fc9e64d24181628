import { showFieldValue } from '../../core/people'
import type { Database } from '../../database'
import { readAccount } from '../../database/account'
import { readFields } from '../../database/people'
import { signUpName, type Sending } from '../../database/sign-ups'

/** What the team is told by mail of those who have confirmed a sign-up: one of them, or all of a day. */
export function teamMail(
  db: Database,
  sendings: readonly Sending[],
  url: string,
): { subject: string; text: string } {
  const name = signUpName(db, sendings[0]!.sign_up_id)
  const { zone } = readAccount(db)!
  const fields = new Map(readFields(db).map((field) => [field.key, field.name]))
  const at = new Intl.DateTimeFormat('en-GB', {
    ...{ dateStyle: 'medium', timeStyle: 'short', timeZone: zone },
  })
  const told = sendings.map(({ address, given, source, page, ended_at, person_id }) =>
    [
      address,
      `  confirmed ${at.format(ended_at!)}${page ? `, on ${page}` : ''}`,
      ...Object.entries(given).map(
        ([key, value]) => `  ${fields.get(key) ?? key}: ${showFieldValue(value)}`,
      ),
      ...Object.entries(source).map(([key, value]) => `  ${key}: ${value}`),
      `  ${url}/people/${person_id}`,
    ].join('\n'),
  )
  const who = sendings.length === 1 ? sendings[0]!.address : `${sendings.length} people`
  return {
    subject: `${who} signed up: ${name}`,
    text: `${told.join('\n\n')}\n\n--\nSatchel tells you because the sign-up “${name}” says so, under Afterwards.\n`,
  }
}
