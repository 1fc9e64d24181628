import type { ReaderLanguage } from '../readers/words'
import type { Placement } from './placement'
import type { Words } from './words'

/** A way in: what somebody sees, agrees to and gets, in every language it speaks. */
export interface SignUpForm {
  kind: SignUpKind
  /** The first is the one that everything is written in. */
  languages: ReaderLanguage[]
  columns: 1 | 2
  parts: FormPart[]
  look: FormLook
  /** Nobody is subscribed before they press the button behind a mailed link. */
  doubleOptIn: boolean
  /** Where it is said what becomes of what is entered. */
  privacy: string
  letter: ConfirmingLetter
  /** Seen when it is sent in; and when that is confirmed. */
  thanks: Said
  confirmed: Said
  /** What was promised, for whoever has confirmed: in a mail and on the page. Neither a link nor a file: nothing. */
  promised: { url: string; fileId: number | null; name: Words }
  /** Given to everybody who has confirmed; and set in their fields, as it is typed. */
  tags: string[]
  values: { field: string; value: string }[]
  /** The sequence that whoever has confirmed comes into, if they may. */
  sequenceId: number | null
  /** Who of the team is told of those who have confirmed. */
  tell: { how: Telling; to: string }
  /** Where a program is told of each; empty: none is. */
  webhook: string
  /** The sites on which it may stand: "https://galewright.example". */
  sites: string[]
  /** When and to whom a pop-over shows itself. */
  placement: Placement
}

/** Over a page, within it, or a page of its own. */
export const signUpKinds = ['pop-over', 'in-page', 'hosted'] as const
export type SignUpKind = (typeof signUpKinds)[number]
export const kindNames: Record<SignUpKind, string> = {
  'pop-over': 'Pop-over',
  'in-page': 'In page',
  hosted: 'Hosted page',
}

export interface Said {
  title: Words
  text: Words
  /** Another page where one is led instead; empty: none. */
  url: string
}

/** By a mail about each, or one a day with all of them. */
export const tellings = ['never', 'each', 'daily'] as const
export type Telling = (typeof tellings)[number]

export interface ConfirmingLetter {
  subject: Words
  text: Words
  button: Words
}

/** How it looks where that differs from the letterhead. */
export interface FormLook {
  paper?: string
  ink?: string
  accent?: string
  headingFont?: string
  textFont?: string
  corner?: number
  /** Whether the letterhead's logo stands above it. */
  logo?: boolean
}

export interface HeadingPart {
  id: string
  kind: 'heading'
  text: Words
}
export interface TextPart {
  id: string
  kind: 'text'
  text: Words
}
export interface PicturePart {
  id: string
  kind: 'picture'
  /** One of the account's own pictures: `/p/…`. */
  src: string
  alt: Words
}
/** Something asked for: the address, a name, or one of the account's fields. */
export interface FieldPart {
  id: string
  kind: 'field'
  /** `address`, `first_name`, `last_name`, or the key of a field. */
  field: string
  label: Words
  help: Words
  placeholder: Words
  required: boolean
  /** What may be chosen, where something is. */
  choices: string[]
  as: 'list' | 'radio' | 'boxes'
  /** Why it is asked, as the account says it. */
  reason: string
}
/** A box that is never ticked beforehand: for some lists, or for the promised mail alone. */
export interface ConsentPart {
  id: string
  kind: 'consent'
  text: Words
  lists: number[]
  oneMail: boolean
  required: boolean
}
/** Where the form has no box, pressing it is the consent, for these lists or the promised mail. */
export interface ButtonPart {
  id: string
  kind: 'button'
  label: Words
  lists: number[]
  oneMail: boolean
}
export interface SmallPart {
  id: string
  kind: 'small'
  text: Words
}
/** A value of the page's address, kept as the source: `utm_source`, `ref` … */
export interface HiddenPart {
  id: string
  kind: 'hidden'
  param: string
}

export type FormPart =
  | HeadingPart
  | TextPart
  | PicturePart
  | FieldPart
  | ConsentPart
  | ButtonPart
  | SmallPart
  | HiddenPart
export type PartKind = FormPart['kind']

/** Every kind with the words for it. The address and the button are there already, and only once. */
export const partKinds: { kind: PartKind; name: string; about: string }[] = [
  { kind: 'heading', name: 'Heading', about: 'what one gets' },
  { kind: 'text', name: 'Text', about: 'a line or two' },
  { kind: 'picture', name: 'Picture', about: 'one of your own' },
  { kind: 'field', name: 'Field', about: 'something asked for' },
  { kind: 'consent', name: 'Consent', about: 'a box for a list, or one mail' },
  { kind: 'small', name: 'Small print', about: 'who you are, what you do with it' },
  { kind: 'hidden', name: 'Value from the address', about: 'utm_source and the like' },
  { kind: 'button', name: 'Button', about: 'sends it in' },
]
export const partNames = Object.fromEntries(
  partKinds.map(({ kind, name }) => [kind, name]),
) as Record<PartKind, string>

export const MOST_PARTS = 40
export const MOST_CHOICES = 50

export function partsOf<K extends PartKind>(form: SignUpForm, kind: K) {
  return form.parts.filter((part): part is Extract<FormPart, { kind: K }> => part.kind === kind)
}

/** Whether anything is promised at all. */
export const promises = ({ promised }: SignUpForm) =>
  promised.url !== '' || promised.fileId !== null

export const firstLanguage = (form: SignUpForm): ReaderLanguage => form.languages[0]!

/** The text of a part that is edited in its place; null where it has none. */
export function textKey(part: FormPart): 'text' | 'label' | 'alt' | null {
  switch (part.kind) {
    case 'heading':
    case 'text':
    case 'consent':
    case 'small':
      return 'text'
    case 'field':
    case 'button':
      return 'label'
    case 'picture':
      return 'alt'
    case 'hidden':
      return null
  }
}

/** A new part of a kind, empty, under the given id. */
export function newPart(kind: PartKind, id: string): FormPart {
  switch (kind) {
    case 'heading':
    case 'text':
    case 'small':
      return { id, kind, text: {} }
    case 'picture':
      return { id, kind, src: '', alt: {} }
    case 'field':
      return {
        ...{ id, kind, field: 'first_name', label: {}, help: {}, placeholder: {}, required: false },
        ...{ choices: [], as: 'list' as const, reason: '' },
      }
    case 'consent':
      return { id, kind, text: {}, lists: [], oneMail: false, required: false }
    case 'button':
      return { id, kind, label: {}, lists: [], oneMail: false }
    case 'hidden':
      return { id, kind, param: 'utm_source' }
  }
}
