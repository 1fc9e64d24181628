import { array, boolean, number, object, string } from 'yup'
import { checkAddress } from '../core/people'
import { dataDays, dataEvery, dataKinds } from '../core/results'
import { isDay } from '../core/time'

const day = string()
  .nullable()
  .default(null)
  .test('day', 'Give the day as year, month and day.', (given) => !given || isDay(given))

/** What is to be taken out of mailings; see `DataChoice`. */
export const dataOutInput = object({
  mailings: array(number().integer().positive().required()).max(1_000).default([]),
  kinds: array(
    string()
      .oneOf(dataKinds.map(({ key }) => key))
      .required(),
  )
    .min(1, 'Choose at least one kind of data.')
    .default(dataKinds.map(({ key }) => key)),
  days: number()
    .nullable()
    .default(null)
    .test(
      'days',
      `There are ${dataDays.join(', ')} days.`,
      (days) => days === null || dataDays.some((one) => one === days),
    ),
  from: day,
  to: day.test('after', 'The last day is before the first.', (to, { parent }) => {
    const { from } = parent as { from: string | null }
    return !to || !from || to >= from
  }),
  unique: boolean().default(true),
  active: boolean().default(true),
  separator: string().oneOf([',', ';', '\t']).default(','),
  quote: string<'"' | "'">().oneOf(['"', "'"]).default('"'),
  every: string()
    .nullable()
    .default(null)
    .test(
      'every',
      `There are ${dataEvery.join(', ')}.`,
      (every) => every === null || dataEvery.some((one) => one === every),
    ),
  /** At which hour of the account's day a schedule begins; null: at the hour it is set. */
  hour: number().integer().min(0).max(23).nullable().default(null),
  mailTo: string()
    .trim()
    .default('')
    .test('address', 'This is not an e-mail address.', (to) => !to || checkAddress(to).ok),
})
