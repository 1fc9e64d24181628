import { isColor, isFont, pictureSource } from '../letters/style'
import { checkAddress } from '../people/address'
import { isReaderLanguage } from '../readers/words'
import {
  MOST_CHOICES,
  MOST_PARTS,
  newPart,
  partKinds,
  signUpKinds,
  tellings,
  type FormLook,
  type FormPart,
  type Said,
  type SignUpForm,
} from './form'
import { usualPlacement, type Placement } from './placement'
import { readWords } from './words'

/** The most characters of a text, of a short one (a label, a title), and of an address on the web. */
const TEXT = 2000
const SHORT = 300
const ADDRESS = 2000

/**
 * A form out of what is on file or came from outside: odd values are dropped, the address is asked for once, and there is
 * one button. Null where it is no form at all.
 */
export function readForm(json: unknown): SignUpForm | null {
  if (typeof json !== 'object' || json === null) return null
  const given = json as Record<string, unknown>
  const kind = signUpKinds.find((one) => one === given.kind)
  const languages = [...new Set(asArray(given.languages).filter(isReaderLanguage))]
  if (!kind || languages.length === 0 || !Array.isArray(given.parts)) return null
  const promised = asObject(given.promised)
  const letter = asObject(given.letter)
  return {
    kind,
    languages,
    columns: given.columns === 2 ? 2 : 1,
    parts: onceEach(given.parts.slice(0, MOST_PARTS).flatMap((part) => readPart(part) ?? [])),
    look: readLook(asObject(given.look)),
    doubleOptIn: given.doubleOptIn !== false,
    privacy: webAddress(given.privacy),
    letter: {
      subject: readWords(letter.subject, SHORT),
      text: readWords(letter.text, TEXT),
      button: readWords(letter.button, SHORT),
    },
    thanks: readSaid(given.thanks),
    confirmed: readSaid(given.confirmed),
    promised: {
      url: webAddress(promised.url),
      fileId: oneId(promised.fileId),
      name: readWords(promised.name, SHORT),
    },
    tags: strings(given.tags, 60).slice(0, 20),
    values: asArray(given.values).slice(0, 20).flatMap(readSetValue),
    sequenceId: oneId(given.sequenceId),
    tell: readTell(asObject(given.tell)),
    webhook: webAddress(given.webhook),
    sites: strings(given.sites, 200).flatMap((site) => siteOf(site) ?? []),
    placement: readPlacement(asObject(given.placement)),
  }
}

/** The origin of a site as it is typed ("galewright.example"); null where that is none. http stands on this machine alone. */
export function siteOf(typed: string): string | null {
  try {
    const url = new URL(/^https?:\/\//i.test(typed) ? typed : `https://${typed.trim()}`)
    const local = url.hostname === 'localhost' || url.hostname === '127.0.0.1'
    if (url.username || url.password || (!local && !url.hostname.includes('.'))) return null
    return url.protocol === 'https:' || local ? url.origin : null
  } catch {
    return null
  }
}

function readPart(json: unknown): FormPart | null {
  const given = asObject(json)
  const { id } = given
  const kind = partKinds.find((one) => one.kind === given.kind)?.kind
  if (!kind || typeof id !== 'string' || !/^[\w-]{1,60}$/.test(id)) return null
  const part = newPart(kind, id)
  switch (part.kind) {
    case 'heading':
    case 'text':
    case 'small':
      return { ...part, text: readWords(given.text, TEXT) }
    case 'picture': {
      const src = pictureSource(given.src)
      return { ...part, src: src.startsWith('/p/') ? src : '', alt: readWords(given.alt, SHORT) }
    }
    case 'field':
      return {
        ...part,
        field: isKey(given.field, 60) ? given.field : 'first_name',
        label: readWords(given.label, SHORT),
        help: readWords(given.help, SHORT),
        placeholder: readWords(given.placeholder, SHORT),
        required: given.field === 'address' || given.required === true,
        choices: [...new Set(strings(given.choices, 100))].slice(0, MOST_CHOICES),
        as: given.as === 'radio' || given.as === 'boxes' ? given.as : 'list',
        reason: typeof given.reason === 'string' ? given.reason.slice(0, SHORT) : '',
      }
    case 'consent':
      return {
        ...{ ...part, text: readWords(given.text, TEXT) },
        ...{ lists: numbers(given.lists), oneMail: given.oneMail === true },
        required: given.required === true,
      }
    case 'button':
      return {
        ...{ ...part, label: readWords(given.label, SHORT) },
        ...{ lists: numbers(given.lists), oneMail: given.oneMail === true },
      }
    case 'hidden':
      return isKey(given.param, 40) ? { ...part, param: given.param } : null
  }
}

/** Ids and what is asked for stand once; the address and the button are always there. */
function onceEach(parts: readonly FormPart[]): FormPart[] {
  const seen = new Set<string>()
  const once = parts.filter((part) => {
    const names = [
      `id ${part.id}`,
      ...(part.kind === 'field' ? [`field ${part.field}`] : []),
      ...(part.kind === 'button' ? ['button'] : []),
    ]
    const again = names.some((name) => seen.has(name))
    for (const name of names) seen.add(name)
    return !again
  })
  if (!seen.has('field address')) {
    const address = { ...newPart('field', 'address'), field: 'address', required: true } as FormPart
    once.push(address)
  }
  if (!seen.has('button')) once.push(newPart('button', 'send'))
  return once
}

function readLook(given: Record<string, unknown>): FormLook {
  const look: FormLook = {}
  for (const key of ['paper', 'ink', 'accent'] as const)
    if (isColor(given[key])) look[key] = given[key].toLowerCase()
  for (const key of ['headingFont', 'textFont'] as const)
    if (isFont(given[key])) look[key] = given[key]
  if (typeof given.corner === 'number' && Number.isFinite(given.corner))
    look.corner = Math.round(Math.min(24, Math.max(0, given.corner)))
  if (typeof given.logo === 'boolean') look.logo = given.logo
  return look
}

/** A placement that fits; what is odd or missing is as it usually is. */
function readPlacement(given: Record<string, unknown>): Placement {
  const within = (value: unknown, least: number, most: number) =>
    typeof value === 'number' && value >= least && value <= most ? Math.round(value) : null
  const usual = usualPlacement
  const patterns = (value: unknown) =>
    strings(value, 200)
      .filter((one) => /^[/*]/.test(one))
      .slice(0, 20)
  return {
    position:
      (['middle', 'corner', 'bar'] as const).find((one) => one === given.position) ??
      usual.position,
    afterSeconds:
      given.afterSeconds === undefined ? usual.afterSeconds : within(given.afterSeconds, 0, 3_600),
    afterShare:
      given.afterShare === undefined ? usual.afterShare : within(given.afterShare, 1, 100),
    onLeaving: given.onLeaving === true,
    onPress: typeof given.onPress === 'string' ? given.onPress.trim().slice(0, 200) : '',
    againAfterDays: within(given.againAfterDays, 1, 365) ?? usual.againAfterDays,
    only: patterns(given.only),
    not: patterns(given.not),
    devices: (['phones', 'computers'] as const).find((one) => one === given.devices) ?? 'all',
    from: strings(given.from, 100).slice(0, 20),
  }
}

const readSaid = (json: unknown): Said => ({
  title: readWords(asObject(json).title, SHORT),
  text: readWords(asObject(json).text, TEXT),
  url: webAddress(asObject(json).url),
})

function readSetValue(json: unknown): SignUpForm['values'] {
  const { field, value } = asObject(json)
  return isKey(field, 60) && field !== 'address' && typeof value === 'string'
    ? [{ field, value: value.slice(0, SHORT) }]
    : []
}

function readTell({ how, to }: Record<string, unknown>): SignUpForm['tell'] {
  const address = typeof to === 'string' ? checkAddress(to) : null
  return {
    how: tellings.find((one) => one === how) ?? 'never',
    to: address?.ok ? address.address : '',
  }
}

/** An address on the web that can be linked to; empty where it is none. */
function webAddress(value: unknown): string {
  if (typeof value !== 'string' || value.length > ADDRESS) return ''
  const url = value.trim()
  return /^https?:\/\/[^\s"'<>]+$/i.test(url) && URL.canParse(url) ? url : ''
}

const asArray = (value: unknown): unknown[] => (Array.isArray(value) ? value : [])
const asObject = (value: unknown) =>
  (typeof value === 'object' && value !== null ? value : {}) as Record<string, unknown>
const isKey = (value: unknown, most: number): value is string =>
  typeof value === 'string' && value.length <= most && /^\w+$/.test(value)
const oneId = (value: unknown) => (Number.isSafeInteger(value) ? (value as number) : null)
const strings = (value: unknown, most: number): string[] =>
  asArray(value)
    .filter((one): one is string => typeof one === 'string' && one.trim() !== '')
    .map((one) => one.normalize('NFC').trim().slice(0, most))
const numbers = (value: unknown): number[] => [
  ...new Set(asArray(value).filter((one): one is number => Number.isSafeInteger(one))),
]
