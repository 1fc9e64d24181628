/** What came of mailings, counted. */
export {
  cohortsByMonth,
  growthByMonth,
  monthsUpTo,
  opensByHour,
  sentSince,
} from './account-results'
export {
  decideTest,
  goalCounts,
  goalReachers,
  linkAddresses,
  moneyOfMailing,
  outcomesOf,
  variantCounts,
} from './experiments'
export { resultsBy, waysToSplit } from './results-by'
export {
  answersByProvider,
  earlierTotals,
  growthByDay,
  hoursOf,
  linkClicks,
  providersSince,
  reasonsOf,
  sentSubjects,
  uncertainMailings,
  usualRates,
} from './results'
