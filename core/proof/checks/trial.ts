import type { Mark, ProofFacts } from '../mark'

/** Where the letter came to in the mailboxes to which it was sent to try. Nothing is said before a trial, nor while it runs. */
export function trial({ trials }: ProofFacts): Mark[] {
  return trials.flatMap((one): Mark[] => {
    const said = says(one)
    if (!said) return []
    const [title, detail] = said
    return [
      {
        check: 'trial',
        level: one.changed ? 'note' : 'caution',
        blockId: null,
        title,
        detail: one.changed ? `${detail} The letter has changed since; try it again.` : detail,
      },
    ]
  })
}

function says({ address, state, folder, words, spf, dkim, dmarc }: ProofFacts['trials'][number]) {
  const provider = address.slice(address.lastIndexOf('@') + 1)
  const failing = Object.entries({ SPF: spf, DKIM: dkim, DMARC: dmarc })
    .filter(([, result]) => result && !['pass', 'none', 'neutral'].includes(result))
    .map(([name, result]) => `${name} ${result}`)
  const why = [
    ...(words ? [`Its filter notes: ${words}.`] : []),
    ...(failing.length ? [`It says: ${failing.join(', ')}.`] : []),
  ].join(' ')
  switch (state) {
    case 'junk':
      return [
        `${provider} puts this letter into “${folder ?? 'junk'}”`,
        why || 'It does not say why.',
      ] as const
    case 'missing':
      return [
        `The letter did not come to ${address}`,
        'It was looked for in the inbox and in junk for five minutes. Some providers drop mail without a word.',
      ] as const
    case 'refused':
      return [`${provider} did not take the letter`, words ?? 'It does not say why.'] as const
    case 'inbox':
      return failing.length
        ? ([
            `${provider} takes the letter, but doubts who sent it`,
            `It says: ${failing.join(', ')}.`,
          ] as const)
        : null
  }
  return null
}
