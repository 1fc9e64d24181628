/** What came of mailings, counted. */
export {
  cohortsByMonth,
  growthByMonth,
  monthsUpTo,
  opensByHour,
  sentSince,
  sequenceMailByMonth,
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
export { earlierSelf, earlierTotals, usualRates } from './earlier'
export { messageCounts, messagesOf } from './messages'
export { sequenceMails } from './of-sequences'
export { resultsBy, sentLetters, waysToSplit } from './results-by'
export {
  answersByProvider,
  growthByDay,
  hoursOf,
  linkClicks,
  providersSince,
  reasonsOf,
  sentSubjects,
  uncertainMailings,
} from './results'
