import { newPart, type FormPart, type SignUpForm, type SignUpKind } from './form'
import { usualPlacement } from './placement'

/** What a form is for, with what it asks and says to begin with. */
export interface SignUpTemplate {
  key: string
  name: string
  about: string
  kind: SignUpKind
  title: string
  text: string
  asks: { field: string; required?: boolean; reason: string }[]
  consents: { text: string; oneMail?: boolean }[]
  /** What the button says; where there are no boxes, this is what one agrees to. */
  button: string
  thanks: string
}

const list = 'the letter'
/** The purposes that a form begins with. `{list}` is the name of the account's first list. */
export const signUpTemplates: SignUpTemplate[] = [
  {
    ...{ key: 'weekly', name: 'Regular letter', kind: 'hosted', button: 'Send me {list}' },
    about: 'one list, the address alone',
    title: '{list}, by mail',
    text: 'What is new, at most once a week. You can stop it with one click.',
    asks: [],
    consents: [],
    thanks: 'Once you have confirmed, the next letter comes to you.',
  },
  {
    ...{ key: 'guide', name: 'Guide for an address', kind: 'in-page', button: 'Send me the guide' },
    about: 'a file by mail, the list only if they tick it',
    title: 'The guide, by mail',
    text: 'Say in two lines what is in it and who it helps.',
    asks: [{ field: 'first_name', reason: 'The letter greets by it.' }],
    consents: [
      { text: 'Send me the guide. One mail, nothing else.', oneMail: true },
      { text: 'Send me {list} as well. I can stop it with one click.' },
    ],
    thanks: 'Once you have confirmed, the guide comes to you.',
  },
  {
    ...{ key: 'discount', name: 'First order', kind: 'in-page', button: 'Send me my code' },
    about: 'a discount for the first order, with the list',
    title: 'Ten in a hundred off your first order',
    text: 'We send you a code, and {list} from then on.',
    asks: [],
    consents: [
      { text: 'Send me the code. One mail, nothing else.', oneMail: true },
      { text: 'Send me {list} as well. I can stop it with one click.' },
    ],
    thanks: 'Once you have confirmed, the code comes to you.',
  },
  {
    ...{ key: 'waiting', name: 'Waiting list', kind: 'in-page', button: 'Tell me first' },
    about: 'for what is not there yet',
    title: 'Be told when it is there',
    text: 'We write when it can be had, and not before.',
    asks: [{ field: 'first_name', reason: 'The letter greets by it.' }],
    consents: [{ text: 'Write to me when it can be had, and send me {list}.' }],
    thanks: 'Once you have confirmed, you are on the waiting list.',
  },
  {
    ...{ key: 'event', name: 'Event', kind: 'hosted', button: 'Keep me posted' },
    about: 'a day, a place, and news of it',
    title: 'The festival, 14 June',
    text: 'When and where, who comes, and what to bring.',
    asks: [
      { field: 'first_name', required: true, reason: 'It stands on the badge.' },
      { field: 'last_name', reason: 'It stands on the badge.' },
    ],
    consents: [{ text: 'Send me {list} with news of the event.' }],
    thanks: 'Once you have confirmed, we write to you before the day.',
  },
  {
    ...{ key: 'desk', name: 'At a desk', kind: 'hosted', button: 'Put me on {list}' },
    about: 'a tablet at a stand, entered by visitors',
    title: 'Hello! Shall we write to you?',
    text: 'Enter your address, and look into your mailbox at home.',
    asks: [{ field: 'first_name', reason: 'The letter greets by it.' }],
    consents: [],
    thanks: 'Thank you. A letter to confirm it waits in your mailbox.',
  },
  {
    ...{ key: 'survey', name: 'A few questions', kind: 'hosted', button: 'Send my answers' },
    about: 'choices that sort people from the start',
    title: 'What would you like to read?',
    text: 'Three clicks, so that you get what is yours.',
    asks: [{ field: 'first_name', reason: 'The letter greets by it.' }],
    consents: [{ text: 'Send me {list}, as I have answered.' }],
    thanks: 'Once you have confirmed, your letters follow your answers.',
  },
  {
    ...{ key: 'footer', name: 'Foot of every page', kind: 'in-page', button: 'Send me {list}' },
    about: 'one line, one field',
    title: '{list}',
    text: 'Once a week, and stopped with one click.',
    asks: [],
    consents: [],
    thanks: 'Once you have confirmed, the next letter comes to you.',
  },
]

/** A form of a purpose, in English, for an account's first list (null: it has none). */
export function formFrom(
  template: SignUpTemplate,
  first: { id: number; name: string } | null,
  newId: () => string,
): SignUpForm {
  const said = (text: string) => ({ en: text.replaceAll('{list}', first?.name ?? list) })
  const part = <P extends FormPart>(kind: P['kind'], over: Partial<P>): FormPart =>
    ({ ...newPart(kind, newId()), ...over }) as FormPart
  const lists = first ? [first.id] : []
  const { title, text, asks, consents, button, thanks, kind } = template
  const oneBox = consents.length > 0
  return {
    kind,
    languages: ['en'],
    columns: 1,
    parts: [
      part('heading', { text: said(title) }),
      part('text', { text: said(text) }),
      ...asks.map(({ field, required = false, reason }) =>
        part('field', { field, required, reason }),
      ),
      part('field', { field: 'address', required: true }),
      ...consents.map(({ text, oneMail = false }) =>
        part('consent', { text: said(text), oneMail, lists: oneMail ? [] : lists }),
      ),
      part('button', { label: said(button), lists: oneBox ? [] : lists }),
      part('small', {}),
    ],
    look: {},
    doubleOptIn: true,
    privacy: '',
    letter: { subject: {}, text: {}, button: {} },
    thanks: { title: said('Look into your mailbox'), text: said(thanks), url: '' },
    confirmed: {
      ...{ title: said('Thank you, it is done'), text: said('You are on the list now.') },
      url: '',
    },
    promised: { url: '', fileId: null, name: {} },
    tags: [],
    values: [],
    sequenceId: null,
    tell: { how: 'never', to: '' },
    webhook: '',
    sites: [],
    placement: usualPlacement,
  }
}
