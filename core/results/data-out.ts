import type { CsvLook } from '../people'
import { DAY, nextDay, type Day } from '../time'

/** What can be taken out of mailings, each as a file of its own. */
export const dataKinds = [
  { key: 'sends', name: 'Sends', about: 'everybody a mailing was for, and how it ended' },
  { key: 'opens', name: 'Opens', about: 'by people; machines are marked' },
  { key: 'clicks', name: 'Clicks', about: 'with the link; scanners are marked' },
  { key: 'bounces', name: 'Bounces', about: 'bounced or refused, with the answer' },
  { key: 'complaints', name: 'Complaints', about: 'marked as spam' },
  { key: 'unsubscribes', name: 'Unsubscribes', about: 'with the reason, where one was given' },
  { key: 'goals', name: 'Goals', about: 'who reached what the mailing was for' },
  { key: 'orders', name: 'Orders', about: 'that count for a mailing, with number and money' },
  { key: 'holdouts', name: 'Holdouts', about: 'who was mailed nothing, to compare with' },
  { key: 'people', name: 'People', about: 'with their fields' },
] as const
export type DataKind = (typeof dataKinds)[number]['key']

export const dataDays = [1, 7, 30, 60, 90] as const

/** What is to be taken out. */
export interface DataChoice {
  /** None: all that went out. */
  mailings: number[]
  kinds: DataKind[]
  /** The last so many days; or between two days, both included; or, with neither, since the beginning. */
  days: (typeof dataDays)[number] | null
  from: Day | null
  to: Day | null
  /** Of opens and clicks only the first of each person and mailing. */
  unique: boolean
  /** Of people only those who opened, clicked or left in this time. */
  active: boolean
  separator: CsvLook['separator']
  quote: CsvLook['quote']
}

/** The time a choice is about: from `since` up to, and without, `until`. `startOf` tells when a day begins. */
export function spanOf(
  { days, from, to }: Pick<DataChoice, 'days' | 'from' | 'to'>,
  now: number,
  startOf: (day: Day) => number,
): { since: number; until: number } {
  if (days) return { since: now - days * DAY, until: now + 1 }
  const until = to ? startOf(nextDay(to)) : now + 1
  return { since: from ? startOf(from) : 0, until }
}

export const lookOf = ({ separator, quote }: CsvLook): CsvLook => ({ separator, quote })

/** How often a schedule takes data out. */
export const dataEvery = ['day', 'week', 'month'] as const
export type DataEvery = (typeof dataEvery)[number]
