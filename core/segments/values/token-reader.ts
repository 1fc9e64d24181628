import { isText } from './comparison'
import { fold } from './fold'
import { RuleTextError, type Token } from './tokens'

/** Goes through the tokens of a rule's text; what it does not find it throws as a `RuleTextError`. */
export class TokenReader {
  /** The place of the token that is read next. */
  next = 0

  constructor(readonly tokens: readonly Token[]) {}

  get token(): Token {
    return this.tokens[this.next]!
  }

  /** The token behind the next one. */
  get follows(): Token {
    return this.tokens[this.next + 1] ?? this.tokens.at(-1)!
  }

  is(text: string): boolean {
    return (
      (this.token.kind === 'word' || this.token.kind === 'sign') && fold(this.token.text) === text
    )
  }

  take(text: string): boolean {
    if (!this.is(text)) return false
    this.next++
    return true
  }

  expect(text: string) {
    if (!this.take(text)) throw this.fault(`“${text}” is missing here.`)
  }

  string(): string {
    const { kind, text } = this.token
    if (kind !== 'string' || !isText(text)) throw this.fault('A text in quotes is needed here.')
    this.next++
    return text
  }

  /** A text in quotes, or words without them: up to "and", "or", a bracket or a comma. */
  text(): string {
    if (this.token.kind === 'string') return this.string()
    const words: string[] = []
    while (
      (this.token.kind === 'word' || this.token.kind === 'number') &&
      !['and', 'or', 'nor'].includes(fold(this.token.text))
    ) {
      words.push(this.token.text)
      this.next++
    }
    if (words.length === 0) throw this.fault('A text is needed here, best in quotes.')
    return words.join(' ')
  }

  /** Whether just these words come next. */
  areWords(...words: string[]): boolean {
    return words.every((word, i) => {
      const token = this.tokens[this.next + i]
      return token?.kind === 'word' && fold(token.text) === word
    })
  }

  count(least: number, most: number): number {
    const number = Number(this.token.text.replaceAll(',', ''))
    if (
      this.token.kind !== 'number' ||
      !Number.isSafeInteger(number) ||
      number < least ||
      number > most
    )
      throw this.fault(`A whole number from ${least} to ${most} is needed here.`)
    this.next++
    return number
  }

  /** Something by its name in quotes, or by its number. */
  named(names: ReadonlyMap<number, string>, what: string): number {
    const { kind, text } = this.token
    if (kind === 'sign' && /^#\d+$/.test(text)) {
      this.next++
      return Number(text.slice(1))
    }
    if (kind !== 'string') throw this.fault(`The name of a ${what} is needed here, in quotes.`)
    const found = [...names].filter(([, name]) => fold(name) === fold(text))
    if (found.length === 0) throw this.fault(`There is no ${what} “${text}”.`)
    if (found.length > 1)
      throw this.fault(
        `There are several ${what}s “${text}”: write ${found.map(([id]) => `#${id}`).join(' or ')}.`,
      )
    this.next++
    return found[0]![0]
  }

  fault(message: string, at = this.next): RuleTextError {
    const token = this.tokens[at]!
    return new RuleTextError(message, token.at, token.length)
  }
}
