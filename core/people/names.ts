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
