import { checkAddress, type CheckedAddress } from '../people/address'
import { nearestDomain } from '../people/doubtful'
import { readFieldValue, type Field, type FieldValue } from '../people/fields'
import { partsOf, type FieldPart, type SignUpForm } from './form'

/** What a form posts, by name; several values of one name in their order. Names: see {@link nameOf}. */
export type Posted = Readonly<Record<string, readonly string[] | undefined>>

/** The names under which a form posts: what is asked, what is ticked, what came with the page's address. */
export const nameOf = {
  field: (part: { id: string }) => `f.${part.id}`,
  tick: (part: { id: string }) => `t.${part.id}`,
  hidden: (part: { param: string }) => `h.${part.param}`,
}

/** What is wrong with one part, by its kind; the words are the reader's. */
export type FormFault = 'empty' | 'address' | 'value' | 'tick' | 'needed'

export type Address = Extract<CheckedAddress, { ok: true }>

/** What somebody entered, understood. */
export interface Entered {
  address: Address
  /** By the key of a field; what was left empty is not there. */
  values: Record<string, FieldValue>
  /** Ids of the boxes that were ticked. */
  ticked: string[]
  /** What the page's address said, by name. */
  source: Record<string, string>
}

export type Reading =
  | { ok: true; entered: Entered }
  | { ok: false; faults: Record<string, FormFault> }
  /** The address may be a slip for another; asked about once. */
  | { ok: false; faults: Record<string, FormFault>; meant: string }

/** The most characters of one value. */
const LONGEST = 1000

/** Domains that many write to, so that one that is nearly one of them may be a slip of the hand. */
export interface Known {
  fields: ReadonlyMap<string, Field>
  domains: ReadonlySet<string>
}

/** Reads what was posted; nothing is taken where a part is wrong. `sure`: they were asked about their address already. */
export function readEntered(
  form: SignUpForm,
  posted: Posted,
  { fields, domains }: Known,
  sure = false,
): Reading {
  const faults: Record<string, FormFault> = {}
  const values: Record<string, FieldValue> = {}
  let address: Address | null = null
  for (const part of partsOf(form, 'field')) {
    const written = (posted[nameOf.field(part)] ?? []).map((one) => one.slice(0, LONGEST).trim())
    const given = written.filter(Boolean)
    if (part.field === 'address') {
      const checked = checkAddress(given[0] ?? '')
      if (checked.ok) address = checked
      else faults[part.id] = given.length ? 'address' : 'empty'
    } else if (given.length === 0) {
      if (part.required) faults[part.id] = 'empty'
    } else {
      const value = readValue(part, fields.get(part.field), given)
      if (value === undefined) faults[part.id] = 'value'
      else values[part.field] = value
    }
  }
  const boxes = partsOf(form, 'consent')
  const ticked = boxes.filter((box) => posted[nameOf.tick(box)]?.length).map(({ id }) => id)
  for (const box of boxes) if (box.required && !ticked.includes(box.id)) faults[box.id] = 'needed'
  if (boxes.length > 0 && ticked.length === 0) faults[boxes[0]!.id] ??= 'tick'
  if (Object.keys(faults).length > 0 || !address) return { ok: false, faults }
  const meant = sure ? null : nearestDomain(address.domain, domains)
  if (meant) {
    const local = address.address.slice(0, address.address.lastIndexOf('@'))
    return { ok: false, faults, meant: `${local}@${meant}` }
  }
  return { ok: true, entered: { address, values, ticked, source: sourceOf(form, posted) } }
}

/** A value for a field, of what may be chosen where something is; undefined for what can't be one. */
function readValue(part: FieldPart, field: Field | undefined, given: readonly string[]) {
  if (!field) return undefined
  const chosen = part.choices.length > 0 && (field.kind === 'choice' || field.kind === 'choices')
  if (chosen && given.some((one) => !part.choices.includes(one))) return undefined
  if (field.kind === 'choices') return [...new Set(given.map((one) => one.normalize('NFC')))]
  return readFieldValue(given[0]!, field.kind) ?? undefined
}

/** The values of the page's address that the form asks for. */
function sourceOf(form: SignUpForm, posted: Posted): Record<string, string> {
  return Object.fromEntries(
    partsOf(form, 'hidden').flatMap((part) => {
      const value = posted[nameOf.hidden(part)]?.[0]?.trim().slice(0, 200)
      return value ? [[part.param, value]] : []
    }),
  )
}
