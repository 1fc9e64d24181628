import type { Vocabulary } from './names'

/** A segment one can begin from: its name, what it is for, and its rule as text. */
export interface Start {
  name: string
  about: string
  text: string
}

/** So many are counted together, in one pass over everybody: few enough to be shown as they come. */
export const STARTS_AT_A_TIME = 4

/** Starting points made from what an account has. `towns`: the values most people have for a field of that name. */
export function startsFor(
  vocabulary: Pick<Vocabulary, 'fields' | 'lists' | 'domains' | 'products' | 'categories'>,
  common: { field: string; name: string; value: string } | null,
): Start[] {
  const { fields, domains, products } = vocabulary
  const birthday = fields.find(({ kind, name }) => kind === 'date' && /birth/i.test(name))
  const starts: (Start | null)[] = [
    {
      name: 'Reading lately',
      about: 'Opened or clicked in the last 90 days.',
      text: 'opened any mailing in the last 90 days or clicked any mailing in the last 90 days',
    },
    { name: 'Keenest', about: 'The highest engagement tier.', text: 'tier is keen' },
    {
      name: 'Gone quiet',
      about: 'Mailed six times in 180 days, and read none of it.',
      text: 'was sent any mailing at least 6 times in the last 180 days and neither opened any mailing in the last 180 days nor clicked any mailing in the last 180 days',
    },
    { name: 'New', about: 'Joined in the last 30 days.', text: 'joined in the last 30 days' },
    {
      name: 'Never opened',
      about: 'Was sent mail, and never opened any.',
      text: 'was sent any mailing and not opened any mailing',
    },
    products.length
      ? {
          name: 'Recent buyers',
          about: 'Bought in the last 60 days.',
          text: 'bought over 0 times in the last 60 days',
        }
      : null,
    products.length
      ? { name: 'Best by money', about: 'Spent over 300.', text: 'spent over 300' }
      : null,
    products.length
      ? { name: 'Best by count', about: 'Bought four times or more.', text: 'bought over 3 times' }
      : null,
    products.length
      ? { name: 'Bought once', about: 'One order, and none since.', text: 'bought 1 times' }
      : null,
    birthday
      ? {
          name: `${birthday.name} this week`,
          about: 'Within seven days from today.',
          text: `field #${birthday.key} has its anniversary within 7 days`,
        }
      : null,
    common
      ? {
          name: `In ${common.value}`,
          about: `The most common ${common.name}.`,
          text: `field #${common.field} is ${JSON.stringify(common.value)}`,
        }
      : null,
    domains[0]
      ? {
          name: `At ${domains[0].domain}`,
          about: 'The provider most people have.',
          text: `domain is ${JSON.stringify(domains[0].domain)}`,
        }
      : null,
  ]
  return starts.filter((start) => start !== null)
}
