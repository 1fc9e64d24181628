/** The first or last so many people, or per cent of people, by something each of them may have. */
export interface Ranking {
  end: 'top' | 'bottom'
  n: number
  unit: 'people' | 'percent'
  by: RankedBy
}

/** By what people are put in order: each a number that is missing for those who never did anything of the kind. */
export type RankedBy = (typeof rankedBy)[number]
export const rankedBy = [
  'money',
  'orders',
  'engagement',
  'joined',
  'last-bought',
  'last-opened',
] as const

/** How many of those who have a value a ranking keeps, before those who tie with the last of them. */
export function rankedPlaces({ n, unit }: Pick<Ranking, 'n' | 'unit'>, withValue: number): number {
  return Math.min(withValue, unit === 'people' ? n : Math.ceil((withValue * n) / 100))
}
