import type { Mark, ProofFacts } from '../mark'

type Trial = ProofFacts['trials'][number]

/**
 * Where the letter came to in the mailboxes to which it was sent to try; providers with the same to say are one mark.
 * Nothing is said before a trial, nor while it runs.
 */
export function trial({ trials }: ProofFacts): Mark[] {
  const same = new Map<string, Trial[]>()
  for (const one of trials) {
    const found = finding(one)
    if (!found) continue
    const key = JSON.stringify([found, one.folder, reason(one), one.changed])
    same.set(key, [...(same.get(key) ?? []), one])
  }
  return [...same.values()].map((alike): Mark => {
    const [one] = alike as [Trial]
    const [title, detail] = said(finding(one)!, alike)
    return {
      check: 'trial',
      level: one.changed ? 'note' : 'caution',
      blockId: null,
      title,
      detail: one.changed ? `${detail} The letter has changed since; try it again.` : detail,
    }
  })
}

type Finding = 'junk' | 'missing' | 'refused' | 'doubted'

function finding({ state, ...one }: Trial): Finding | null {
  if (state === 'inbox') return failing(one).length ? 'doubted' : null
  return state === 'junk' || state === 'missing' || state === 'refused' ? state : null
}

function said(found: Finding, alike: Trial[]): [title: string, detail: string] {
  const [one] = alike as [Trial]
  const who = listed(alike.map(({ address }) => address.slice(address.lastIndexOf('@') + 1)))
  const many = alike.length > 1
  switch (found) {
    case 'junk':
      return [
        `${who} ${many ? 'put' : 'puts'} this letter into “${one.folder ?? 'junk'}”`,
        reason(one) || `${many ? 'They do' : 'It does'} not say why.`,
      ]
    case 'missing':
      return [
        `The letter did not come to ${listed(alike.map(({ address }) => address))}`,
        'It was looked for in the inbox and in junk for five minutes. Some providers drop mail without a word.',
      ]
    case 'refused':
      return [
        `${who} did not take the letter`,
        one.words ?? `${many ? 'They do' : 'It does'} not say why.`,
      ]
    case 'doubted':
      return [
        `${who} ${many ? 'take' : 'takes'} the letter, but ${many ? 'doubt' : 'doubts'} who sent it`,
        reason(one),
      ]
  }
}

/** Why, in the provider's own words and by the results of authentication that it wrote down. */
function reason(one: Trial): string {
  if (one.state === 'refused') return one.words ?? ''
  const doubts = failing(one)
  return [
    ...(one.state === 'junk' && one.words ? [`Its filter notes: ${one.words}.`] : []),
    ...(doubts.length ? [`It says: ${doubts.join(', ')}.`] : []),
  ].join(' ')
}

function failing({ spf, dkim, dmarc }: Pick<Trial, 'spf' | 'dkim' | 'dmarc'>): string[] {
  return Object.entries({ SPF: spf, DKIM: dkim, DMARC: dmarc })
    .filter(([, result]) => result && !['pass', 'none', 'neutral'].includes(result))
    .map(([name, result]) => `${name} ${result}`)
}

/** All by name as long as they are few. */
function listed(names: string[]): string {
  const shown = names.length > 4 ? [...names.slice(0, 3), `${names.length - 3} others`] : names
  return shown.length > 1 ? `${shown.slice(0, -1).join(', ')} and ${shown.at(-1)}` : shown[0]!
}
