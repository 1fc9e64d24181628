import { DateTime } from 'luxon'
import {
  array,
  mixed,
  number,
  object,
  string,
  type AnyObject,
  type ISchema,
  type ObjectShape,
  type ObjectSchema,
} from 'yup'

/** One schema for each kind of entry the inbound API takes; its document is made from the same limits. */

/** Entries one request may have. */
export const BATCH = 1_000

/** What is null is as what is not there; nothing is made of another type. */
// What yup's transforms give is of any type, and checked afterwards.
const asGiven = (_: unknown, given: unknown) => (given ?? undefined) as never

const text = (longest: number) =>
  string()
    .transform((_, given: unknown) =>
      typeof given === 'string' ? given.trim() : asGiven(_, given),
    )
    .typeError('A text is needed here.')
    .max(longest, `At most ${longest} characters.`)
    // Half of a character (a surrogate alone) can't be written in UTF-8.
    .matches(/^[^\p{Cc}\p{Cs}]*$/u, {
      message: 'No control characters and no halves of characters, please.',
      excludeEmptyString: true,
    })
const whole = (least: number, most: number) =>
  number()
    .transform(asGiven)
    .typeError('A number is needed here.')
    .integer('A whole number is needed here.')
    .min(least, `At least ${least}.`)
    .max(most, `At most ${most.toLocaleString('en-GB')}.`)
const money = () =>
  number()
    .transform(asGiven)
    .typeError('Money is in minor units: 9400 for 94.00.')
    .integer('Money is in minor units: 9400 for 94.00.')
    .min(0, 'Money is not less than 0.')
    .max(1e12, 'At most 1,000,000,000,000, in minor units.')
const list = (of: ISchema<unknown>) =>
  array(of as never)
    .transform(asGiven)
    .typeError('A list is needed here.')
/** What stands in a list. */
const part = <T extends ObjectShape>(fields: T) =>
  object(fields).nonNullable('An object is needed here.').typeError('An object is needed here.')
/** Whether all texts in it can be written in UTF-8, its keys too. */
function isWritable(value: unknown): boolean {
  if (typeof value === 'string') return !/\p{Cs}/u.test(value)
  if (typeof value !== 'object' || value === null) return true
  return Object.entries(value).every(([key, one]) => isWritable(key) && isWritable(one))
}
const plainObject = mixed<Record<string, unknown>>()
  .transform(asGiven)
  .test(
    'object',
    'An object is needed here.',
    (value) =>
      value === undefined || (typeof value === 'object' && value !== null && !Array.isArray(value)),
  )
  .test('writable', 'A text in it has half of a character.', isWritable)
  .default({})
/** When: ISO 8601, of a day that there is; now where it is left out. */
const moment = string()
  .transform(asGiven)
  .typeError('A time as in 2026-11-23T09:40:00Z is needed here.')
  .test(
    'time',
    'A time as in 2026-11-23T09:40:00Z is needed here.',
    (value) =>
      value === undefined || (/^\d{4}-\d\d-\d\dT/.test(value) && DateTime.fromISO(value).isValid),
  )

export const apiPerson = object({
  address: text(254).required('An address is needed.'),
  values: plainObject,
  tags: list(text(60).required('A tag has a name.')).max(50, 'At most 50 tags.').default([]),
  lists: list(
    part({
      list: text(100).required('The key of a list is needed.'),
      agreed: text(500).required('Say what this person agreed to: it is kept as evidence.'),
    }),
  )
    .max(50, 'At most 50 lists.')
    .default([]),
})

export const apiEvent = object({
  address: text(254).required('An address is needed.'),
  name: text(100).required('A name is needed.'),
  at: moment,
  properties: plainObject.test(
    'flat',
    'Properties are texts, numbers, true or false.',
    (value) =>
      Object.values(value ?? {}).every((one) =>
        ['string', 'number', 'boolean'].includes(typeof one),
      ) && JSON.stringify(value ?? {}).length <= 4_000,
  ),
})

export const apiOrder = object({
  number: text(100).required('The number of the order is needed.'),
  address: text(254).required('An address is needed.'),
  at: moment,
  items: list(
    part({
      product: text(100).required('The key of the product is needed.'),
      name: text(200).required('The name of the product is needed.'),
      category: text(100).default(''),
      quantity: whole(1, 100_000).default(1),
      money: money().required('Money is needed, in minor units.'),
    }),
  )
    .min(1, 'An order has at least one item.')
    .max(500, 'At most 500 items.')
    .required('Items are needed.'),
})

const webAddress = text(2_000)
  .matches(/^https?:\/\/[^\s"'<>()\\]+$/, {
    message: 'An address on the web is needed, such as https://shop.example/delta.',
    excludeEmptyString: true,
  })
  .transform((value: unknown) => value || null)
  .nullable()
  .default(null)

export const apiProduct = object({
  key: text(100).required('The key of the product is needed.'),
  name: text(200).required('The name of the product is needed.'),
  category: text(100).default(''),
  price: money().required('The price is needed, in minor units.'),
  url: webAddress,
  picture: webAddress,
  stock: whole(0, 1e9).nullable().default(null),
})

export const apiSignUp = object({
  address: text(254).required('An address is needed.'),
  values: plainObject,
  agreed: list(text(2_000).required('The words of a box or of the button are needed.'))
    .min(1, 'Say what this person agreed to, in the words of the form.')
    .max(40, 'At most 40 wordings.')
    .required('Say what this person agreed to, in the words of the form.'),
  language: text(10),
  page: text(300),
  ip: text(45),
})

export const apiArrival = object({
  address: text(254).required('An address is needed.'),
  sequence: whole(1, Number.MAX_SAFE_INTEGER).required('The number of the sequence is needed.'),
})

export const apiSchemas: Record<
  'people' | 'events' | 'orders' | 'products' | 'sequences' | 'sign-ups/{key}',
  ObjectSchema<AnyObject>
> = {
  people: apiPerson,
  events: apiEvent,
  orders: apiOrder,
  products: apiProduct,
  sequences: apiArrival,
  'sign-ups/{key}': apiSignUp,
}
