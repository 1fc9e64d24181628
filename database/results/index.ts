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
  goalOpenUntil,
  goalReachers,
  linkAddresses,
  moneyOfMailing,
  ordersOfMailing,
  outcomesOf,
  variantCounts,
} from './experiments'
export { resultsBy, sentLetters, waysToSplit } from './results-by'
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
