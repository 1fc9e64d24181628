/** Fields, by their key, that say which language somebody reads. */
export const languageKeys: readonly string[] = ['language', 'lang', 'locale']

/** What a field of somebody's says of their language; undefined where none does. */
export const saidLanguage = (values: Readonly<Record<string, unknown>>): unknown =>
  languageKeys.map((key) => values[key]).find((value) => value != null)

/** Countries whose addresses tell a language: the ending of the domain, and the language most of its people read. */
const byEnding: Readonly<Record<string, string>> = {
  at: 'de',
  au: 'en',
  br: 'pt',
  cz: 'cs',
  de: 'de',
  dk: 'da',
  es: 'es',
  fi: 'fi',
  fr: 'fr',
  gr: 'el',
  hu: 'hu',
  ie: 'en',
  it: 'it',
  jp: 'ja',
  mx: 'es',
  nl: 'nl',
  no: 'no',
  nz: 'en',
  pl: 'pl',
  pt: 'pt',
  ro: 'ro',
  ru: 'ru',
  se: 'sv',
  tr: 'tr',
  uk: 'en',
}

/** Languages that can be told, by their code (ISO 639-1). */
export const languages: readonly string[] = [...new Set(Object.values(byEnding))].sort()

const english = new Intl.DisplayNames('en', { type: 'language' })
const byName = new Map<string, string>(
  languages.flatMap((code) => {
    const own = new Intl.DisplayNames(code, { type: 'language' }).of(code) ?? code
    return [english.of(code) ?? code, own, code].map((name) => [name.toLowerCase(), code] as const)
  }),
)

/** The code of a language by its code ("de", "de-AT"), or its name in English or itself; null for what is none of these. */
export function languageNamed(text: string): string | null {
  const wanted = text.trim().toLowerCase()
  return byName.get(wanted) ?? byName.get(wanted.split(/[-_]/)[0]!) ?? null
}

/**
 * The language somebody reads: what a field of theirs says, or else what the country of their address suggests. Null
 * where neither tells.
 */
export function languageOf(said: unknown, domain: string): string | null {
  const read = typeof said === 'string' ? languageNamed(said) : null
  return read ?? byEnding[domain.slice(domain.lastIndexOf('.') + 1).toLowerCase()] ?? null
}
