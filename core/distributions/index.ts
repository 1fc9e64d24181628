/** Distributions of probability: the beta and the normal. */
export { betaBelow, betaDensity, logBeta } from './beta'
export { normalBelow, normalDensity } from './normal'
