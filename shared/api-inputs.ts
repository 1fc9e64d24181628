import { array, mixed, number, object, string, type AnyObject, type ObjectSchema } from 'yup'

/** One schema for each kind of entry the inbound API takes; its document is made from the same limits. */

/** Entries one request may have. */
export const BATCH = 1_000

const text = (longest: number) =>
  string()
    .strict(true)
    .trim()
    .max(longest, `At most ${longest} characters.`)
    .matches(/^[^\p{Cc}]*$/u, {
      message: 'No control characters, please.',
      excludeEmptyString: true,
    })
const plainObject = mixed<Record<string, unknown>>()
  .test(
    'object',
    'An object is needed here.',
    (value) =>
      value === undefined || (typeof value === 'object' && value !== null && !Array.isArray(value)),
  )
  .default({})
/** When: ISO 8601, at most a day ahead; now where it is left out. */
const moment = string().test(
  'time',
  'A time as in 2026-11-23T09:40:00Z is needed here.',
  (value) =>
    value === undefined || (/^\d{4}-\d\d-\d\dT/.test(value) && !Number.isNaN(Date.parse(value))),
)

export const apiPerson = object({
  address: text(254).required('An address is needed.'),
  values: plainObject,
  tags: array(text(60).required()).max(50).default([]),
  lists: array(
    object({
      list: text(100).required('The key of a list is needed.'),
      agreed: text(500).required('Say what this person agreed to: it is kept as evidence.'),
    }),
  )
    .max(50)
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
  items: array(
    object({
      product: text(100).required('The key of the product is needed.'),
      name: text(200).required('The name of the product is needed.'),
      category: text(100).default(''),
      quantity: number().strict(true).integer().min(1).max(100_000).default(1),
      money: number()
        .strict(true)
        .integer('Money is in minor units: 9400 for 94.00.')
        .min(0)
        .max(1e12)
        .required('Money is needed, in minor units.'),
    }),
  )
    .min(1, 'An order has at least one item.')
    .max(500)
    .required('Items are needed.'),
})

const webAddress = text(2_000)
  .matches(/^https?:\/\/[^\s"'<>()\\]+$/, {
    message: 'An address on the web is needed: https://…',
    excludeEmptyString: true,
  })
  .transform((value: string | null) => value || null)
  .nullable()
  .default(null)

export const apiProduct = object({
  key: text(100).required('The key of the product is needed.'),
  name: text(200).required('The name of the product is needed.'),
  category: text(100).default(''),
  price: number()
    .strict(true)
    .integer('Money is in minor units: 9400 for 94.00.')
    .min(0)
    .max(1e12)
    .required('The price is needed, in minor units.'),
  url: webAddress,
  picture: webAddress,
  stock: number().strict(true).integer().min(0).max(1e9).nullable().default(null),
})

export const apiSchemas: Record<
  'people' | 'events' | 'orders' | 'products',
  ObjectSchema<AnyObject>
> = {
  people: apiPerson,
  events: apiEvent,
  orders: apiOrder,
  products: apiProduct,
}
