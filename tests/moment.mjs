/**
 * The tests of whole processes all begin at one moment, a Thursday morning in the middle of a month: which
 * of the demo's mailings fall into this month, what is due at night and what on Sundays hangs on it. Their
 * clocks go on from there as clocks do. Each process that a test starts loads this file too (NODE_OPTIONS).
 */
export const BEGIN = Date.parse('2026-11-12T09:41:00Z')
const RealDate = globalThis.Date.Real ?? Date

/** From now on it is BEGIN, here and in all processes that are started from here. */
export function begin() {
  const shift = BEGIN - RealDate.now()
  process.env.SATCHEL_TESTS_SHIFT = String(shift)
  const here = `--import=${import.meta.url}`
  const others = process.env.NODE_OPTIONS ?? ''
  if (!others.includes(here)) process.env.NODE_OPTIONS = `${others} ${here}`.trim()
  shiftBy(shift)
}

/** Lets all that asks this process for the time be told another, so many milliseconds later. */
function shiftBy(ms) {
  const now = () => RealDate.now() + ms
  const Shifted = new Proxy(RealDate, {
    apply: () => new RealDate(now()).toString(),
    construct: (target, given, asked) =>
      Reflect.construct(target, given.length ? given : [now()], asked),
    get: (target, name) => (name === 'now' ? now : name === 'Real' ? RealDate : target[name]),
  })
  RealDate.prototype.constructor = Shifted
  globalThis.Date = Shifted
}

if (process.env.SATCHEL_TESTS_SHIFT) shiftBy(Number(process.env.SATCHEL_TESTS_SHIFT))
