/** What web and engine do with sequences. */
export { sequenceCautions, sequenceProblems } from './problems'
export { sequenceResults } from './results'
