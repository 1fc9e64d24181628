import ICAL from 'ical.js'

/** Every column a file of vCards may come to; those that nobody has are left out. */
const columns = [
  'Address',
  'First name',
  'Last name',
  'Name',
  'Organisation',
  'Role',
  'Town',
  'Country',
  'Birthday',
  'Web site',
  'Telephone',
  'Tags',
  'Remarks',
] as const
type Card = Partial<Record<(typeof columns)[number], string>>

/** Whether a text begins as vCards do. */
export function isVcards(text: string): boolean {
  return /^\uFEFF?\s*BEGIN:VCARD/i.test(text)
}

/**
 * Reads vCards (RFC 6350, and 3.0 as address books still write it) into rows under a header. Of several
 * addresses the preferred one counts, else the first. A card that can't be read becomes a row without an
 * address, to be refused with a reason.
 */
export function rowsOfVcards(text: string): string[][] {
  const cards = text
    .replace(/^\uFEFF/, '')
    .split(/(?<=^END:VCARD[ \t]*)(?:\r\n|\r|\n|$)/im)
    .filter((card) => card.trim() !== '')
    .map(readCard)
  const used = columns.filter(
    (column) => column === 'Address' || cards.some((card) => card[column]),
  )
  return cards.length ? [[...used], ...cards.map((card) => used.map((one) => card[one] ?? ''))] : []
}

function readCard(text: string): Card {
  let card: ICAL.Component
  try {
    card = new ICAL.Component(ICAL.parse(text) as ConstructorParameters<typeof ICAL.Component>[0])
  } catch {
    return { Remarks: text.trim().slice(0, 200) }
  }
  const first = (name: string) => card.getFirstPropertyValue(name)
  const text_ = (name: string) => flat(first(name))
  const name = parts(first('n'))
  const home = parts(first('adr'))
  const whole = text_('fn')
  const names = { 'Last name': name[0] ?? '', 'First name': name[1] ?? '' }
  const named = names['First name'] !== '' || names['Last name'] !== ''
  return {
    Address: preferredAddress(card),
    ...(named ? names : { Name: whole }),
    Organisation: parts(first('org'))[0] ?? '',
    Role: text_('title') || text_('role'),
    Town: home[3] ?? '',
    Country: home[6] ?? '',
    Birthday: dayIn(text_('bday')),
    'Web site': text_('url'),
    Telephone: text_('tel').replace(/^tel:/i, ''),
    Tags: card
      .getAllProperties('categories')
      .flatMap((property) => property.getValues().map(flat))
      .join(', '),
    Remarks: text_('note'),
  }
}

/** The address with the best preference: `PREF=1` is the first (RFC 6350, 5.3), as is `TYPE=pref` of 3.0. */
function preferredAddress(card: ICAL.Component): string {
  const rank = (property: ICAL.Property) => {
    const type = [property.getParameter('type') ?? []]
      .flat()
      .map((one) => String(one).toLowerCase())
    const pref = Number(property.getParameter('pref'))
    return type.includes('pref') ? 1 : pref >= 1 ? pref : 101
  }
  const all = card.getAllProperties('email')
  const best = all.reduce<ICAL.Property | null>(
    (found, one) => (found === null || rank(one) < rank(found) ? one : found),
    null,
  )
  return best ? flat(best.getFirstValue()).replace(/^mailto:/i, '') : ''
}

function flat(value: unknown): string {
  if (value === null || value === undefined) return ''
  return (Array.isArray(value) ? value.flat().join(' ') : String(value)).trim()
}

/** The parts of a value that has several, each as text. */
function parts(value: unknown): string[] {
  return Array.isArray(value) ? value.map(flat) : value == null ? [] : [flat(value)]
}

/** A whole date as "YYYY-MM-DD"; one without its year is none. */
function dayIn(text: string): string {
  const found = /^(\d{4})-?(\d{2})-?(\d{2})/.exec(text)
  return found ? `${found[1]}-${found[2]}-${found[3]}` : ''
}
