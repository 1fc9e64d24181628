import { readDayText } from '../../time'

/** A piece of a rule's text and where it stands. `text` of a string is what is between the quotes. */
export interface Token {
  kind: 'word' | 'number' | 'day' | 'string' | 'sign' | 'end'
  text: string
  at: number
  length: number
}

/** What is wrong with a rule's text: where, and in words. */
export class RuleTextError extends Error {
  constructor(
    message: string,
    readonly at: number,
    readonly length: number,
  ) {
    super(message)
  }
}

const pieces =
  /\s+|"((?:[^"\\]|\\.)*)"|“([^”]*)”|(\d{4}-\d{2}-\d{2}|\d{1,2}\s+(?:jan|feb|mar|apr|may|jun|jul|aug|sep|oct|nov|dec)[a-z]*\s+\d{4})|(-?\d{1,3}(?:,\d{3})+(?:\.\d+)?(?![\d,])|-?\d+(?:\.\d+)?(?:e[+-]?\d+)?)|(#[\w-]+|[(),%])|([\p{L}_][\p{L}\p{M}\p{N}_]*)/iuy

/** Cuts the text of a rule into tokens, with one of kind `end` behind the last. */
export function tokensOf(text: string): Token[] {
  const tokens: Token[] = []
  let at = 0
  while (at < text.length) {
    pieces.lastIndex = at
    const match = pieces.exec(text)
    if (!match) {
      if (text[at] === '"' || text[at] === '“')
        throw new RuleTextError('This quotation has no end.', at, text.length - at)
      throw new RuleTextError(`“${text[at]}” has no meaning here.`, at, 1)
    }
    const [whole, plain, curled, day, number, sign, word] = match
    const token = (kind: Token['kind'], content: string) =>
      tokens.push({ kind, text: content, at, length: whole.length })
    if (plain !== undefined) token('string', plain.replace(/\\(.)/gsu, '$1'))
    else if (curled !== undefined) token('string', curled)
    else if (day !== undefined) token('day', readDayText(day, '2000-01-01') ?? day)
    else if (number !== undefined) token('number', number)
    else if (sign !== undefined) token('sign', sign)
    else if (word !== undefined) token('word', word)
    at += whole.length
  }
  tokens.push({ kind: 'end', text: '', at: text.length, length: 0 })
  return tokens
}
