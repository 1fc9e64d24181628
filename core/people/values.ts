const signs = /^(?:\p{Sc}|[A-Z]{3}(?=[\s\d]))\s*|\s*(?:\p{Sc}|%|(?<=[\s\d])[A-Z]{3})$/gu

/**
 * Reads a number written with a decimal point or comma, with or without groups of three, a currency or a per cent sign;
 * null where it is none. A sign that could only stand for the other of the two ("13,69" with a decimal point) is no number.
 */
export function readNumber(text: string, decimal: '.' | ','): number | null {
  const bare = text.trim().replace(/^([+-])\s*/, '$1')
  if (/^[+-]?\d+$/.test(bare)) return Number(bare)
  const sign = /^[+-]/.exec(bare)?.[0] ?? ''
  const figures = bare.slice(sign.length).replace(signs, '').trim()
  const form = decimal === '.' ? withPoint : withComma
  const found = form.exec(figures)
  if (!found) return null
  const whole = found[1]!.replace(/\D/g, '')
  return Number(`${sign}${whole}${found[2] ? `.${found[2]}` : ''}`)
}

const withPoint = /^(\d+|\d{1,3}(?:,\d{3})+|\d{1,3}(?:[\s'’]\d{3})+)(?:\.(\d+))?$/
const withComma = /^(\d+|\d{1,3}(?:\.\d{3})+|\d{1,3}(?:[\s'’]\d{3})+)(?:,(\d+))?$/

/** Whether a cell of figures is not meant for a number: the nought, plus or space of a telephone number would be lost. */
export function isFiguresOnly(text: string): boolean {
  return /^\+|^0\d|\d[ -]\d/.test(text.trim())
}

/** The words of a column that say yes, and those that say no; in lower case. None: the usual ones. */
export interface YesNoWords {
  yes: readonly string[]
  no: readonly string[]
}

export const usualWords: YesNoWords = {
  yes: [
    ...[
      'yes',
      'y',
      'true',
      't',
      '1',
      'on',
      'x',
      '✓',
      '✔',
      'opted in',
      'opted-in',
      'opt-in',
      'opt in',
    ],
    ...[
      'subscribed',
      'active',
      'ja',
      'j',
      'wahr',
      'oui',
      'o',
      'vrai',
      'si',
      'sí',
      's',
      'sì',
      'sim',
      'はい',
    ],
  ],
  no: [
    ...[
      'no',
      'n',
      'false',
      'f',
      '0',
      'off',
      '-',
      '✗',
      '✘',
      'opted out',
      'opted-out',
      'opt-out',
      'opt out',
    ],
    ...['unsubscribed', 'inactive', 'nein', 'falsch', 'non', 'faux', 'nee', 'não', 'いいえ'],
  ],
}

const usual = { yes: new Set(usualWords.yes), no: new Set(usualWords.no) }

/** Reads "yes" and "no" in their usual spellings, or by the words that a column has instead; null for anything else. */
export function readYesNo(text: string, words?: YesNoWords): boolean | null {
  const word = text.trim().toLowerCase()
  if (words?.yes.length ? words.yes.includes(word) : usual.yes.has(word)) return true
  if (words?.no.length ? words.no.includes(word) : usual.no.has(word)) return false
  return null
}
