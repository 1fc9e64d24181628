import type { Entered, Posted, SignUpForm } from '../../core/sign-ups'
import { readForm } from '../../core/sign-ups'
import type { Database } from '../../database'
import { addSignUp, liveSignUp, publishSignUp, signUpById } from '../../database/sign-ups'
import { takeSending, type Circumstances, type SeenForm, type Taken } from './take'

/** A form for the given lists, one box each, and a box for a guide; for tests. */
export function madeUpForm(lists: readonly number[], over: Partial<SignUpForm> = {}): SignUpForm {
  return readForm({
    ...{ kind: 'hosted', languages: ['en'], doubleOptIn: true },
    parts: [
      { id: 'name', kind: 'field', field: 'first_name' },
      { id: 'address', kind: 'field', field: 'address' },
      { id: 'guide', kind: 'consent', text: { en: 'Send me the guide.' }, oneMail: true },
      ...lists.map((id) => ({
        ...{ id: `list${id}`, kind: 'consent', lists: [id] },
        text: { en: `Send me list ${id}.` },
      })),
      { id: 'send', kind: 'button', label: { en: 'Send' } },
      { id: 'small', kind: 'small', text: {} },
    ],
    privacy: 'https://galewright.example/privacy',
    promised: { url: 'https://galewright.example/guide.pdf', name: { en: 'The guide' } },
    thanks: { title: { en: 'Look into your mailbox' }, text: {} },
    confirmed: { title: { en: 'It is done' }, text: {} },
    ...over,
  })!
}

/** Publishes a form, and gives it as somebody sees it. */
export function seenForm(db: Database, form: SignUpForm, name = 'Twelve beaches'): SeenForm {
  const id = addSignUp(db, name, form, 0)
  publishSignUp(db, id, 1, 'Wren', 0)
  const { version, form: live } = liveSignUp(db, signUpById(db, id)!.key)!
  return { signUpId: id, version, form: live, language: 'en' }
}

/** Sends a form in as a person does, who ticks some boxes. */
export function sendIn(
  db: Database,
  seen: SeenForm,
  address: string,
  ticked: readonly string[],
  now: number,
  { values = {}, ...of }: Partial<Circumstances> & { values?: Entered['values'] } = {},
): Taken {
  const posted: Posted = {
    'f.address': [address],
    'f.name': [String(values.first_name ?? '')],
    ...Object.fromEntries(ticked.map((id) => [`t.${id}`, ['yes']])),
  }
  return takeSending(
    db,
    seen,
    posted,
    {
      ...{ trapped: false, drawnFor: 20_000, proven: true, sure: false },
      work: `work for ${address} at ${now}`,
      ...{ page: 'https://galewright.example/', ip: null, agent: 'Browser' },
      ...of,
    },
    new Set(),
    now,
  )
}
