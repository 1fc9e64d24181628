import type { PersonFacts } from './person-facts'

/** Somebody of whom nothing is known but an address and when they joined, for tests. */
export function madeUpFacts(joinedAt: number, over: Partial<PersonFacts> = {}): PersonFacts {
  return {
    normal: 'tove@inkpost.example',
    domain: 'inkpost.example',
    joinedAt,
    values: {},
    subscriptions: new Map(),
    tags: new Set(),
    mail: [],
    clicks: [],
    orders: [],
    events: [],
    frozen: new Set(),
    sequences: new Map(),
    signUps: [],
    keenness: null,
    suppressed: null,
    pause: null,
    source: null,
    ...over,
  }
}
