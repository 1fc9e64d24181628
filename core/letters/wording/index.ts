/**
 * The words of a letter: plans to write by, shorter, plainer and friendlier ways to say something, and subjects
 * from its own words. All by rules, in the page, with nothing asked of anybody.
 */
export { isPrompt, LONGEST_PROMPT, promptsLeft, withPlan, writingPlans } from './plans'
export type { WritingPlan } from './plans'
export { manners, sentences, taken, tighten, wordCount } from './tighten'
export type { Manner, Proposal } from './tighten'
export { proposeSubjects } from './subjects'
export type { SubjectProposal } from './subjects'
