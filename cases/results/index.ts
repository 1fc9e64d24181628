/** What came of mailings, as pages show it. */
export { besideOf } from './beside'
export { mailingResults } from './mailing'
export { testResults, worthResults } from './test'
