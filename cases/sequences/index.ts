/** What web and engine do with sequences. */
export { linksOfSequence } from './links'
export { sequenceCautions, sequenceProblems } from './problems'
export { stepMail } from './step-mail'
export { sequenceResults } from './results'
