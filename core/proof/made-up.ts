import { defaultLetterhead, type Letter } from '../letters'
import type { ProofFacts } from './mark'

/** Everything a letter needs to be proofed, in order but for the letter itself, for tests. */
export function madeUpProof(letter: Letter, change: Partial<ProofFacts> = {}): ProofFacts {
  return {
    letter,
    listName: 'Wind notes',
    audienceCount: 9060,
    segmentProblems: [],
    ruleProblems: [],
    renditions: null,
    approval: null,
    offered: new Map(),
    feeds: new Map(),
    letterhead: defaultLetterhead,
    goesOutOn: '2026-11-24',
    weight: null,
    postalAddress: '1 Slipway, Sandreach',
    gaps: new Map([['person.first_name', 0]]),
    names: ['person.first_name', 'person.town'],
    misspelt: null,
    people: null,
    domain: null,
    sender: null,
    trials: [],
    links: new Map(),
    ...change,
  }
}
