import { DAY } from '../time'

/** What a person does that shows engagement, and what each is worth. */
export const weights = { open: 1, click: 2, reply: 3, order: 4 } as const
export type EngagedAct = keyof typeof weights

/** An act is worth half as much after so many days. */
export const HALF_LIFE_DAYS = 45

/** From the least engagement on, what a person is called. */
export const tiers = ['silent', 'cool', 'warm', 'keen'] as const
export type Tier = (typeof tiers)[number]

/** The least engagement of each tier. Who opens a weekly letter every time comes to about 10. */
export const tierFrom: Record<Tier, number> = { silent: 0, cool: 0.5, warm: 2.5, keen: 8 }

/**
 * Engagement as it is kept on file: log2 of Σ weight(act) · 2^(time of act / half-life). In this form
 * it does not change while time goes by, so it is written when something happens and compared at
 * any later moment. Null: nothing ever happened.
 */
export type Keenness = number | null

/** Keenness after one more act. Order of acts does not matter. */
export function withAct(keenness: Keenness, act: EngagedAct, at: number): number {
  const added = Math.log2(weights[act]) + at / (HALF_LIFE_DAYS * DAY)
  if (keenness === null) return added
  const most = Math.max(keenness, added)
  return most + Math.log2(1 + 2 ** -Math.abs(keenness - added))
}

/** Σ weight(act) · 2^(−age / 45 days) at the moment `now`. */
export function engagement(keenness: Keenness, now: number): number {
  return keenness === null ? 0 : 2 ** (keenness - now / (HALF_LIFE_DAYS * DAY))
}

/** The keenness from which on a person is in `tier` or above, at `now`; null where everybody is. */
export function keennessOf(tier: Tier, now: number): number | null {
  return tier === 'silent' ? null : Math.log2(tierFrom[tier]) + now / (HALF_LIFE_DAYS * DAY)
}

/** The tier of a person. */
export function tierOf(keenness: Keenness, now: number): Tier {
  let found: Tier = 'silent'
  for (const tier of tiers) {
    const from = keennessOf(tier, now)
    if (from !== null && keenness !== null && keenness >= from) found = tier
  }
  return found
}
