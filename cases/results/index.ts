/** What came of mailings, as pages show it. */
export { mailingResults } from './mailing'
export { testResults, worthResults } from './test'
