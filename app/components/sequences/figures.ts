import type { Interval } from '~~/core/results'

/** The bounds of an interval. */
export const bounds = (
  { low, high }: Pick<Interval, 'low' | 'high'>,
  words: (n: number) => string,
): string => `${words(low)} to ${words(high)}`

/** A share's difference in points: "+2.1". */
export const points = (share: number): string =>
  `${share > 0 ? '+' : share < 0 ? '−' : ''}${Math.abs(share * 100).toFixed(1)}`

/** Money that is reckoned, and so not known to the penny. */
export function reckonedMoney(minor: number, currency: string): string {
  const whole = Math.abs(minor) < 100_00 ? Math.round(minor) : Math.round(minor / 100) * 100
  return `${whole < 0 ? '−' : ''}${money(Math.abs(whole), currency)}`
}
