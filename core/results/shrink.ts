import { logBeta, normalBelow } from '../distributions'

/** A share as it is likely to be, given how much such shares differ at all. */
export interface ShrunkRate {
  /** As it was counted. */
  raw: number
  rate: number
  low: number
  high: number
}

type Share = { hits: number; of: number }

/**
 * Shares shrunk towards their common mean, each the more the fewer people it is of: the posterior of a beta-binomial model
 * (Gelman et al., Bayesian Data Analysis, 5.3) over a grid of the mean and of the spread between shares, so that what is
 * not known of these two is in the 95% intervals as well. The prior is flat over both, up to a spread of 0.25. Shares that
 * may all be alike are near the mean, with intervals that leave room for their not being alike.
 */
export function shrinkRates(shares: readonly Share[]): ShrunkRate[] {
  const counted = shares.filter((share) => share.of > 0)
  if (counted.length === 0) return shares.map(() => ({ raw: 0, rate: 0, low: 0, high: 0 }))
  const models = likelyModels(counted)
  return shares.map((share) => {
    const raw = share.of ? share.hits / share.of : 0
    return { raw, ...posteriorOf(share, models) }
  })
}

/** A beta prior of the shares, as hits and misses that it weighs as much as, and how likely it is. */
interface Model {
  hits: number
  misses: number
  likely: number
}

const SPREADS = 24
const WIDEST = 0.25
/** Below it a spread is held for less likely the smaller it is; few samples tell one of nearly nothing from none. */
const FLAT_FROM = 0.02
const MEANS = 9
/** Means are looked at so many standard errors around that of all. */
const REACH = 3
/** A spread of nothing, as a prior: it weighs more than any number of people. */
const ALIKE = 1e9
/** Models less likely than this, beside the likeliest, change nothing that is shown. */
const LEAST = 1e-4
/** The same as a logarithm, with room for what another mean mends. */
const HOPELESS = 20

/** The models that may have brought about these shares; their likelihoods sum to 1. */
function likelyModels(shares: readonly Share[]): Model[] {
  const hits = sum(shares.map((share) => share.hits))
  const of = sum(shares.map((share) => share.of))
  // Half a hit and half a miss more: nobody, or everybody, is no certainty.
  const centre = (hits + 0.5) / (of + 1)
  const models: (Model & { log: number })[] = []
  let best = -Infinity
  for (let i = 0; i < SPREADS; i++) {
    // The nearer to nothing, the closer: there a little more changes most.
    const spread = WIDEST * (i / (SPREADS - 1)) ** 2
    if (spread ** 2 >= centre * (1 - centre)) break
    const step = (2 * i + 1) * Math.min(1, spread / FLAT_FROM + 0.05)
    // A spread that is hopeless at the middle is so beside it.
    const middle = logLikelihood(shares, priorOf(centre, spread))
    if (middle < best - HOPELESS) continue
    best = Math.max(best, middle)
    const error = Math.sqrt(spread ** 2 / shares.length + (centre * (1 - centre)) / of)
    for (let j = 0; j < MEANS; j++) {
      const mean = centre + error * REACH * ((2 * j) / (MEANS - 1) - 1)
      if (mean <= 0 || mean >= 1 || spread ** 2 >= mean * (1 - mean)) continue
      const prior = priorOf(mean, spread)
      models.push({
        ...prior,
        likely: 0,
        log: logLikelihood(shares, prior) + Math.log(step * error),
      })
    }
  }
  const likeliest = models.reduce((most, { log }) => Math.max(most, log), -Infinity)
  for (const model of models) model.likely = Math.exp(model.log - likeliest)
  const kept = models.filter(({ likely }) => likely > LEAST)
  const total = sum(kept.map(({ likely }) => likely))
  return kept.map((model) => ({ ...model, likely: model.likely / total }))
}

function priorOf(mean: number, spread: number): Pick<Model, 'hits' | 'misses'> {
  const weight = spread === 0 ? ALIKE : (mean * (1 - mean)) / spread ** 2 - 1
  return { hits: mean * weight, misses: (1 - mean) * weight }
}

/** The logarithm of how likely shares are under a beta-binomial model, up to what is the same for all models. */
function logLikelihood(
  shares: readonly Share[],
  { hits, misses }: Pick<Model, 'hits' | 'misses'>,
): number {
  const weight = hits + misses
  if (weight >= ALIKE / 2) {
    const [yes, no] = [Math.log(hits / weight), Math.log(misses / weight)]
    return sum(shares.map((share) => share.hits * yes + (share.of - share.hits) * no))
  }
  const prior = logBeta(hits, misses)
  return sum(
    shares.map((share) => logBeta(hits + share.hits, misses + share.of - share.hits) - prior),
  )
}

/** The mean and the 95% interval of a share under all models: a mixture of betas, each taken as normal in its logit. */
function posteriorOf({ hits, of }: Share, models: readonly Model[]): Omit<ShrunkRate, 'raw'> {
  let rate = 0
  const parts = models.map((model) => {
    const yes = model.hits + hits
    const no = model.misses + of - hits
    rate += (model.likely * yes) / (yes + no)
    // The moments of the logit of a beta, as its digamma and trigamma functions are approximated.
    const [a, b] = [Math.max(yes - 0.5, 0.25), Math.max(no - 0.5, 0.25)]
    return { likely: model.likely, at: Math.log(a / b), reach: Math.sqrt(1 / a + 1 / b) }
  })
  const share = (logit: number) =>
    sum(parts.map(({ likely, at, reach }) => likely * normalBelow((logit - at) / reach)))
  const centre = sum(parts.map(({ likely, at }) => likely * at))
  const deviation = Math.sqrt(
    sum(parts.map(({ likely, at, reach }) => likely * (reach ** 2 + (at - centre) ** 2))),
  )
  const quantile = (wanted: number) => {
    let [from, to] = [centre - 8 * deviation, centre + 8 * deviation]
    for (let i = 0; i < 15; i++) {
      const middle = (from + to) / 2
      if (share(middle) < wanted) from = middle
      else to = middle
    }
    return 1 / (1 + Math.exp(-(from + to) / 2))
  }
  return { rate, low: Math.min(rate, quantile(0.025)), high: Math.max(rate, quantile(0.975)) }
}

const sum = (values: readonly number[]) => values.reduce((total, value) => total + value, 0)
