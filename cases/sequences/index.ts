/** What web and engine do with sequences. */
export { sequenceProblems } from './problems'
