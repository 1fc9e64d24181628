import { number, object, string, type InferType } from 'yup'
import { languageNames, type ReaderLanguage } from '../core/readers'
import { roles } from '../core/team'
import { isZone } from '../core/time'
import { address, line, seenVersion } from './input-parts'

/** What the account, its people and its clock are told. */

const password = string()
  .required('Choose a password.')
  .min(12, 'At least 12 characters.')
  .max(200, 'At most 200 characters.')
const given = string().required('Write your password.').max(200, 'At most 200 characters.')
const code = string().trim().max(20, 'This is no code.')

export const signInInput = object({ address, password: given, code: code.default('') })

export const confirmInput = object({ password: given })

export const passwordInput = object({ old: given, password })

export const resetInput = object({ key: string().required().max(100), password })

export const secondFactorInput = object({
  secret: string()
    .required()
    .matches(/^[A-Z2-7]{32}$/, 'This is no secret of ours.'),
  code: code.required('Write the code that your phone shows.'),
})

const role = string().oneOf(roles, 'There is no such role.').required('Choose a role.')

export const roleInput = object({ role })

export const ownerInput = object({
  name: line(100).required('Write your name.'),
  address,
  password,
  /** What `npm start` prints while there is no owner. */
  code: string().trim().max(100).required('Write the setup code.'),
  accountName: line(100).required('Write what your readers know you by.'),
  zone: string()
    .required()
    .test('zone', 'This is not a time zone.', (zone) => isZone(zone ?? '')),
})

export const userInput = object({
  name: line(100).required('Write their name.'),
  address,
  password,
  role,
})

/** An hour of the account’s clock; null: there are no quiet hours. */
const quietHour = number().integer().min(0).max(23).nullable().default(null)

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
  quiet_from: quietHour,
  quiet_to: quietHour.when('quiet_from', ([from], hour) =>
    from == null
      ? hour.oneOf([null], 'Choose from when on, too.')
      : hour
          .nonNullable('Choose until when.')
          .notOneOf([from], 'Choose another hour than the one they begin at.'),
  ),
  callback_seconds: number()
    .integer('A whole number.')
    .min(0, 'At least 0.')
    .max(3_600, 'At most 3,600, which is an hour.'),
  replies: string().oneOf(['sender', 'kept'], 'Choose where replies go.').default('sender'),
  language: string()
    .oneOf(Object.keys(languageNames) as ReaderLanguage[], 'Choose a language.')
    .default('en'),
})

/** A change of the settings over the version its editor saw. */
export const accountChangeInput = accountInput.shape({ version: seenVersion })

/** What readers are told instead of what ships; nothing: what ships. */
export const readerWordInput = object({ text: line(500).default(''), version: seenVersion })

export const clockInput = object({
  rate: number().oneOf([1, 60, 3600]),
  jumpTo: number().integer().positive(),
})

export type AccountInput = InferType<typeof accountInput>

export type OwnerInput = InferType<typeof ownerInput>

export const tokenInput = object({ name: line(100).required('Say which program it is for.') })
