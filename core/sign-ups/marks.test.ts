import { expect, test } from 'vitest'
import { defaultLetterhead } from '../letters/letterhead'
import { formFrom, signUpTemplates } from './templates'
import { readForm } from './read-form'
import { signUpMarks, type SignUpFacts } from './marks'
import { guideBox, someFields, someForm, windBox } from './made-up'
import type { SignUpForm } from './form'

const facts: SignUpFacts = {
  lists: new Map([[1, 'Wind notes']]),
  fields: someFields,
  letterhead: defaultLetterhead,
  postalAddress: '1 Slipway, Sandreach',
  usedBy: new Map([['town', 3]]),
  lettersLooked: 12,
  files: new Set([5]),
  sequences: new Map([
    [3, { name: 'First week', running: true, listId: 1 }],
    [4, { name: 'Asleep', running: false, listId: 2 }],
  ]),
}
const small = { id: 'small', kind: 'small', text: {} }
const button = { id: 'send', kind: 'button', label: { en: 'Send' } }
const rest = {
  privacy: 'https://galewright.example/privacy',
  promised: { url: 'https://galewright.example/guide.pdf' },
  thanks: { title: { en: 'Thank you' } },
  confirmed: { title: { en: 'Done' } },
}
const clear = (parts: object[] = [windBox], over: object = {}) =>
  someForm([...parts, button, small], { ...rest, ...over })
const marks = (form: SignUpForm, over: Partial<SignUpFacts> = {}) =>
  signUpMarks(form, { ...facts, ...over }).map(({ level, title }) => `${level}: ${title}`)

test('a form that is complete has no marks', () => {
  expect(marks(clear([guideBox, windBox]))).toEqual([])
})

test('what one agrees to has its words in every language, and leads somewhere', () => {
  expect(marks(clear([windBox], { languages: ['en', 'fr'] }))).toEqual([
    'blocker: Nobody says what the first box means in Français',
  ])
  expect(marks(clear([{ ...windBox, lists: [] }]))).toEqual([
    'blocker: The first box leads to no list',
  ])
  expect(marks(clear([{ ...windBox, lists: [7] }]))).toEqual([
    'blocker: The first box leads to a list that is gone',
  ])
  expect(marks(clear([guideBox], { promised: {} }))).toEqual([
    'blocker: The first box promises a mail that there is not',
  ])
})

test('a button is the consent for one purpose alone', () => {
  const pressed = (lists: number[], oneMail = false) =>
    someForm([{ ...button, lists, oneMail }, small], rest)
  const both = { lists: new Map([...facts.lists, [2, 'Offers']]) }
  expect(marks(pressed([1]), both)).toEqual([])
  for (const form of [pressed([1, 2]), pressed([1], true)])
    expect(marks(form, both)).toEqual(['blocker: The button agrees to several things at once'])
})

test('each thing asked has a reason, told beside how often letters used it', () => {
  const town = { id: 'town', kind: 'field', field: 'town', choices: ['Orrin'] }
  const found = signUpMarks(clear([town, windBox]), facts)
  expect(found).toMatchObject([
    { level: 'caution', title: 'Town: why is it asked?', partId: 'town' },
  ])
  expect(found[0]!.detail).toContain('3 of the last 12 letters used it.')
  expect(marks(clear([{ ...town, reason: 'For the wind there.' }, windBox]))).toEqual([])
  expect(marks(clear([{ ...town, reason: 'So.', choices: [] }, windBox]))).toEqual([
    'blocker: Town: nothing can be chosen',
  ])
  expect(marks(clear([{ ...town, field: 'gone' }, windBox]))).toEqual([
    'blocker: It asks for a field that is gone',
  ])
})

test('who one deals with, what can be read, what comes next, and who confirms', () => {
  const of = (over: object, more?: Partial<SignUpFacts>) => marks(clear([windBox], over), more)
  expect(of({}, { postalAddress: ' ' })).toEqual(['blocker: There is no postal address'])
  expect(of({ privacy: '' })).toEqual(['blocker: There is no link to what you do with it'])
  expect(of({ thanks: {} })).toEqual(['blocker: Thanks are empty'])
  expect(of({ look: { paper: '#ffffff', ink: '#bbbbbb' } })).toEqual([
    'blocker: The text can’t be read on its background',
  ])
  expect(of({ doubleOptIn: false })).toEqual(['caution: Nobody confirms their address'])
  expect(of({ kind: 'in-page' })).toEqual(['blocker: No site may show it'])
  expect(of({ letter: { text: { en: 'See www.k.example' } } })).toEqual([
    'caution: The confirming letter leads elsewhere, too',
  ])
  expect(marks(someForm([windBox, button], rest))).toEqual(['blocker: The small print is missing'])
})

test('every template is a form of its own purpose, and lacks nothing that it could know', () => {
  let n = 0
  const forms = signUpTemplates.map((template) =>
    formFrom(template, { id: 1, name: 'Wind notes' }, () => `p${++n}`),
  )
  expect(forms.length).toBeGreaterThanOrEqual(8)
  for (const form of forms) {
    expect(readForm(JSON.parse(JSON.stringify(form)))).toEqual(form)
    const blockers = marks(form).filter((mark) => mark.startsWith('blocker'))
    const own = [/link to what you do/, /promises a mail/, /No site/]
    expect(blockers.filter((mark) => !own.some((one) => one.test(mark)))).toEqual([])
  }
})

test('what happens afterwards can happen', () => {
  const after = (over: object) => marks(clear([windBox], over))
  expect(
    after({
      ...{ promised: { fileId: 5 }, values: [{ field: 'birthday', value: '2001-02-03' }] },
      ...{ sequenceId: 3, tell: { how: 'daily', to: 'wren@galewright.example' } },
      webhook: 'https://shop.example/hook',
    }),
  ).toEqual([])
  expect(after({ promised: { fileId: 6 } })).toEqual(['blocker: The promised file is gone'])
  expect(after({ values: [{ field: 'birthday', value: 'soon' }] })).toEqual([
    'blocker: “soon” is no value of Birthday',
  ])
  expect(after({ values: [{ field: 'gone', value: 'x' }] })).toEqual([
    'blocker: It sets a field that is gone',
  ])
  expect(after({ sequenceId: 9 })).toEqual(['blocker: The sequence it starts is gone'])
  expect(after({ sequenceId: 4 })).toEqual([
    'caution: The sequence Asleep is not running',
    'caution: Nobody may come into Asleep by this form',
  ])
  expect(after({ tell: { how: 'each' } })).toEqual(['blocker: Nobody is named to be told'])
  expect(after({ webhook: 'http://shop.example/hook' })).toEqual([
    'caution: The webhook is not encrypted',
  ])
})
