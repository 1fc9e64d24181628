import { tiers, type Tier } from '../standing'
import type { Audience, Drawn, Often } from './audience'

/** How likely somebody is to do what can be done with a mail, and how often they order. */
export interface Habits {
  open: number
  clickOfOpen: number
  leaveOfOpen: number
  orders: Often
}

/** As much as so many mails of one's own, and so many of a tier’s, everybody’s habit weighs. */
const TIER_WEIGHS = 10
const ALL_WEIGH = 200
/** As many days of one's own, and of a tier’s. */
const TIER_DAYS = 180
const ALL_DAYS = 3_600

/**
 * What each is likely to do: what they did so far, shrunk towards their tier, and that towards everybody, as the mean of a
 * posterior whose prior weighs as much as a number of mails or days (beta and gamma; Gelman et al., Bayesian Data
 * Analysis, 2.4 and 2.6). In the order of the people.
 */
export function habitsOf({ people, customs }: Pick<Audience, 'people' | 'customs'>): Habits[] {
  const everybody = meanOf(together(people), { open: 0.3, clickOfOpen: 0.1, ordersPerDay: 0 }, 1, 1)
  const ofTier = Object.fromEntries(
    tiers.map((tier) => {
      const mine = together(people.filter((one) => one.tier === tier))
      return [tier, meanOf(mine, everybody, ALL_WEIGH, ALL_DAYS)]
    }),
  ) as Record<Tier, Means>
  const own = people.map((one) => meanOf(one, ofTier[one.tier], TIER_WEIGHS, TIER_DAYS))
  const { leaveOfOpen, inside } = customs
  if (!inside)
    return own.map(({ open, clickOfOpen, ordersPerDay }) => ({
      ...{ open, clickOfOpen, leaveOfOpen, orders: { perDay: ordersPerDay } },
    }))
  // Whoever comes in has a reason: each is as much above or below the others as otherwise, and all together do as those did
  // who were inside before.
  const mean = (of: keyof Means) => own.reduce((sum, one) => sum + one[of], 0) / own.length
  const [open, click, orders] = [mean('open'), mean('clickOfOpen'), mean('ordersPerDay')]
  return own.map((one) => ({
    open: scaled(one.open, open, inside.open),
    clickOfOpen: scaled(one.clickOfOpen, click, inside.clickOfOpen),
    leaveOfOpen,
    orders: {
      share: scaled(one.ordersPerDay, orders, inside.orders.share),
      mean: inside.orders.mean,
    },
  }))
}

/** Nobody does anything for certain. */
const MOST = 0.98

const scaled = (own: number, mean: number, wanted: number) =>
  Math.min(MOST, mean > 0 ? (own / mean) * wanted : wanted)

type Means = Pick<Habits, 'open' | 'clickOfOpen'> & { ordersPerDay: number }
type Counts = Pick<Drawn, 'sent' | 'opened' | 'clicked' | 'orders' | 'days'>

function meanOf(of: Counts, prior: Means, mails: number, days: number): Means {
  return {
    open: (of.opened + mails * prior.open) / (of.sent + mails),
    clickOfOpen: (of.clicked + mails * prior.clickOfOpen) / (of.opened + mails),
    ordersPerDay: (of.orders + days * prior.ordersPerDay) / (of.days + days),
  }
}

function together(people: readonly Drawn[]): Counts {
  const sum = (of: keyof Counts) => people.reduce((total, one) => total + one[of], 0)
  return {
    ...{ sent: sum('sent'), opened: sum('opened'), clicked: sum('clicked') },
    ...{ orders: sum('orders'), days: sum('days') },
  }
}
