/** The density of Beta(a, b) at x, for a and b of at least 1. */
export function betaDensity(x: number, a: number, b: number): number {
  if (x < 0 || x > 1) return 0
  if (x === 0) return a === 1 ? b : 0
  if (x === 1) return b === 1 ? a : 0
  return Math.exp((a - 1) * Math.log(x) + (b - 1) * Math.log1p(-x) - logBeta(a, b))
}

/** The share of Beta(a, b) below x: the regularised incomplete beta function (Abramowitz and Stegun 26.5.8, by Lentz's method). */
export function betaBelow(x: number, a: number, b: number): number {
  if (x <= 0) return 0
  if (x >= 1) return 1
  const front = Math.exp(a * Math.log(x) + b * Math.log1p(-x) - logBeta(a, b))
  return x < (a + 1) / (a + b + 2)
    ? (front * fraction(x, a, b)) / a
    : 1 - (front * fraction(1 - x, b, a)) / b
}

export function logBeta(a: number, b: number): number {
  return logGamma(a) + logGamma(b) - logGamma(a + b)
}

const HALF_LOG_2PI = 0.5 * Math.log(2 * Math.PI)
const TINY = 1e-300

function fraction(x: number, a: number, b: number): number {
  let c = 1
  let d = 1 / nonZero(1 - ((a + b) * x) / (a + 1))
  let value = d
  for (let m = 1; m <= 5_000; m++) {
    const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m))
    d = 1 / nonZero(1 + even * d)
    c = nonZero(1 + even / c)
    value *= d * c
    const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1))
    d = 1 / nonZero(1 + odd * d)
    c = nonZero(1 + odd / c)
    const step = d * c
    value *= step
    if (Math.abs(step - 1) < 1e-14) break
  }
  return value
}

function nonZero(x: number): number {
  return Math.abs(x) < TINY ? TINY : x
}

/** Stirling's series for large numbers (Abramowitz and Stegun 6.1.41); below, Lanczos (1964), with g = 7 and nine terms. */
function logGamma(x: number): number {
  if (x > 12) {
    const y = 1 / (x * x)
    const rest = (1 / 12 - y * (1 / 360 - y * (1 / 1260 - y * (1 / 1680 - y / 1188)))) / x
    return (x - 0.5) * Math.log(x) - x + HALF_LOG_2PI + rest
  }
  const terms = [
    0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313,
    -176.61502916214059, 12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6,
    1.5056327351493116e-7,
  ]
  const t = x - 1 + 7.5
  const sum = terms.reduce((all, term, i) => (i === 0 ? term : all + term / (x - 1 + i)), 0)
  return 0.5 * Math.log(2 * Math.PI) + (x - 0.5) * Math.log(t) - t + Math.log(sum)
}
