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
  byProvider,
  earlierTotals,
  growthByDay,
  hoursOf,
  linkClicks,
  mailingsSince,
  reasonsOf,
  sentSubjects,
  uncertainMailings,
  usualRates,
} from './results'
