const MINUTE = 60_000
/** Units of a wait, the longest first. */
export const waitUnits = [
  { one: 'day', many: 'days', ms: 24 * 60 * MINUTE },
  { one: 'hour', many: 'hours', ms: 60 * MINUTE },
  { one: 'minute', many: 'minutes', ms: MINUTE },
] as const

/** A wait in the largest unit that says it whole. */
export function inUnits(ms: number): { n: number; unit: (typeof waitUnits)[number] } {
  const unit = waitUnits.find((one) => ms % one.ms === 0) ?? waitUnits.at(-1)!
  return { n: Math.max(1, Math.round(ms / unit.ms)), unit }
}

/** "2 days". */
export function waitWords(ms: number): string {
  const { n, unit } = inUnits(ms)
  return `${n.toLocaleString('en-GB')} ${n === 1 ? unit.one : unit.many}`
}
