import { DateTime } from 'luxon'
import { checkAddress, addressProblems, type Field, type FieldValue } from '~~/core/people'
import { readFields } from '~~/database/people'

/** A fault of one field, as a 422. */
export function fieldFault(field: string, message: string) {
  return createError({ statusCode: 422, message, data: { fields: { [field]: message } } })
}

/** An address from a request in its parts. */
export function addressFrom(text: string) {
  const checked = checkAddress(text)
  if (!checked.ok) throw fieldFault('address', addressProblems[checked.problem])
  const { address, normal, domain } = checked
  return { address, normal, domain }
}

/** Values by field key from a request; each must be of its field's kind. Null takes a value away. */
export function valuesFrom(given: Record<string, unknown>): Record<string, FieldValue | null> {
  const fields = new Map(readFields(satchel().db).map((field) => [field.key, field]))
  return Object.fromEntries(
    Object.entries(given).map(([key, value]) => {
      const field = fields.get(key)
      if (!field) throw fieldFault(`values.${key}`, `There is no field “${key}”.`)
      return [key, valueFrom(field, value)]
    }),
  )
}

function valueFrom({ key, name, kind }: Field, value: unknown): FieldValue | null {
  if (value === null || value === '') return null
  const wrong = (what: string) => fieldFault(`values.${key}`, `${name} must be ${what}.`)
  switch (kind) {
    case 'number':
      if (typeof value !== 'number' || !Number.isFinite(value)) throw wrong('a number')
      return value
    case 'yesno':
      if (typeof value !== 'boolean') throw wrong('yes or no')
      return value
    case 'choices': {
      if (
        !Array.isArray(value) ||
        !value.every((one) => typeof one === 'string' && one.length <= 200)
      )
        throw wrong('a list of choices')
      const choices = (value as string[]).map((one) => one.trim().normalize('NFC')).filter(Boolean)
      return choices.length ? [...new Set(choices)] : null
    }
    case 'date':
      if (
        typeof value !== 'string' ||
        !/^\d{4}-\d{2}-\d{2}$/.test(value) ||
        !DateTime.fromISO(value).isValid
      )
        throw wrong('a day, such as 2026-11-23')
      return value
    case 'link':
      if (typeof value !== 'string' || !/^https?:\/\/\S+$/i.test(value) || value.length > 2_000)
        throw wrong('a link that begins with https://')
      return value
    case 'text':
    case 'choice':
      if (typeof value !== 'string' || value.length > 2_000)
        throw wrong('a text of at most 2,000 characters')
      return value.trim().normalize('NFC') || null
  }
}
