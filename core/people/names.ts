const particles = new Set([
  'van',
  'von',
  'de',
  'da',
  'di',
  'del',
  'der',
  'den',
  'la',
  'le',
  'du',
  'dos',
  'ter',
])

/** Splits a whole name ("Bram Prynne-Marsh", "Prynne-Marsh, Bram") into first and last name. */
export function splitName(whole: string): { first: string; last: string } {
  const name = whole.trim().replace(/\s+/g, ' ')
  const comma = name.indexOf(',')
  if (comma > 0) return { first: name.slice(comma + 1).trim(), last: name.slice(0, comma).trim() }
  const words = name.split(' ')
  if (words.length === 1) return { first: name, last: '' }
  let from = words.length - 1
  while (from > 1 && particles.has(words[from - 1]!.toLowerCase())) from--
  return { first: words.slice(0, from).join(' '), last: words.slice(from).join(' ') }
}

/** As names stand on file; absent and null: there is none. */
export interface Named {
  first_name?: string | null
  last_name?: string | null
}

/** What somebody is called; empty, where no name is on file. */
export const nameOf = ({ first_name, last_name }: Named): string =>
  [first_name, last_name].filter(Boolean).join(' ')

/** What somebody is called, or else their address. */
export const nameOrAddress = <A extends string | null>(
  person: Named & { address: A },
): string | A => nameOf(person) || person.address
