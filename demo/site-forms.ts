import type { Database } from '../database'
import { liveSignUps } from '../database/sign-ups'

/** On which pages of the shop's site each form stands; `*`: at the foot of all others. */
const pages: Record<string, string[]> = {
  'Twelve beaches guide': ['/beaches', '/beach-reports'],
  'At the foot of every page': ['*'],
  'Wind notes, its own page': [],
}

/** What the owner of the shop's site pasted into it, as the practice world reads it. */
export const siteForms = (db: Database) =>
  liveSignUps(db).map(({ signUp: { key, name }, form: { kind } }) => ({
    ...{ key, kind: kind === 'hosted' ? 'hosted' : 'in-page' },
    pages: pages[name] ?? [],
  }))
