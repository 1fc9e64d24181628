import { contrast } from '../letters/color'
import type { Letterhead } from '../letters/letterhead'
import type { MarkLevel } from '../proof/mark'
import { readFieldValue, type Field } from '../people/fields'
import { languageNames, type ReaderLanguage } from '../readers/words'
import { purposesOf } from './consent'
import { firstLanguage, partNames, partsOf, promises, type FormPart, type SignUpForm } from './form'
import { drawnLook, READABLE } from './look'
import type { Words } from './words'

/** One finding about a form. `partId`: the part it points at; null: none of them. */
export interface SignUpMark {
  check: string
  level: MarkLevel
  partId: string | null
  title: string
  detail: string
}

/** What the checks look at besides the form. */
export interface SignUpFacts {
  lists: ReadonlyMap<number, string>
  fields: ReadonlyMap<string, Field>
  letterhead: Letterhead
  postalAddress: string
  /** By field: how many of the last letters that were sent fill it in or ask a rule of it; and how many these were. */
  usedBy: ReadonlyMap<string, number>
  lettersLooked: number
  /** The files that are kept for what is promised; and the sequences there are, with the list of whoever is inside. */
  files: ReadonlySet<number>
  sequences: ReadonlyMap<number, { name: string; running: boolean; listId: number | null }>
}

type Found = Omit<SignUpMark, 'check'>
type Check = (form: SignUpForm, facts: SignUpFacts) => Found[]

/** Everything that keeps a form from going live, or should be looked at: blockers first. */
export function signUpMarks(form: SignUpForm, facts: SignUpFacts): SignUpMark[] {
  const found = Object.entries(checks).flatMap(([check, look]) =>
    look(form, facts).map((one) => ({ check, ...one })),
  )
  return [
    ...found.filter(({ level }) => level === 'blocker'),
    ...found.filter(({ level }) => level !== 'blocker'),
  ]
}

const blocker = (title: string, detail: string, part: FormPart | null = null): Found => ({
  ...{ level: 'blocker', title, detail, partId: part?.id ?? null },
})
const caution = (title: string, detail: string, part: FormPart | null = null): Found => ({
  ...{ level: 'caution', title, detail, partId: part?.id ?? null },
})

/** Languages of the form in which a text is not there. */
const lacking = (form: SignUpForm, words: Words): ReaderLanguage[] =>
  form.languages.filter((language) => !words[language]?.trim())
const named = (languages: readonly ReaderLanguage[]) =>
  languages.map((language) => languageNames[language]).join(', ')

const ordinals = ['first', 'second', 'third', 'fourth', 'fifth']

const checks: Record<string, Check> = {
  /** What one agrees to leads somewhere: to lists that are there, or to a mail that there is. */
  purpose: (form, { lists }) =>
    purposesOf(form).flatMap((part, i) => {
      const name = part.kind === 'button' ? 'The button' : `The ${ordinals[i] ?? `${i + 1}th`} box`
      const gone = part.lists.filter((id) => !lists.has(id))
      return [
        ...(part.lists.length === 0 && !part.oneMail
          ? [blocker(`${name} leads to no list`, 'Choose what one gets by it.', part)]
          : []),
        ...(gone.length > 0
          ? [blocker(`${name} leads to a list that is gone`, 'Choose another.', part)]
          : []),
        ...(part.oneMail && !promises(form)
          ? [
              blocker(
                `${name} promises a mail that there is not`,
                'Say under Afterwards what is sent.',
                part,
              ),
            ]
          : []),
      ]
    }),
  /** A button can be the consent for one purpose alone. */
  button: (form) =>
    purposesOf(form).flatMap((part) =>
      part.kind === 'button' && part.lists.length + (part.oneMail ? 1 : 0) > 1
        ? [
            blocker(
              'The button agrees to several things at once',
              'Give each a box of its own, so that one can be had without the other.',
              part,
            ),
          ]
        : [],
    ),
  /** Every wording of consent is there in every language; nobody agrees to what they can’t read. */
  wording: (form) =>
    purposesOf(form).flatMap((part, i) => {
      const missing = lacking(form, part.kind === 'consent' ? part.text : part.label)
      const name = part.kind === 'button' ? 'the button' : `the ${ordinals[i] ?? `${i + 1}th`} box`
      return missing.length === 0
        ? []
        : [
            blocker(
              `Nobody says what ${name} means in ${named(missing)}`,
              form.languages.length > 1
                ? `The form has ${form.languages.length} languages; this wording has ${form.languages.length - missing.length}.`
                : 'What one agrees to is kept word for word.',
              part,
            ),
          ]
    }),
  /** Other texts fall back on the first language. */
  texts: (form) =>
    form.parts.flatMap((part) => {
      if (part.kind !== 'heading' && part.kind !== 'text' && part.kind !== 'button') return []
      const missing = lacking(form, part.kind === 'button' ? part.label : part.text)
      if (missing.includes(firstLanguage(form)))
        return [
          blocker(`${partNames[part.kind]} is empty`, 'Write something there, or remove it.', part),
        ]
      return missing.length === 0 || part.kind === 'button'
        ? []
        : [
            caution(
              `${partNames[part.kind]} is not there in ${named(missing)}`,
              `It is shown in ${languageNames[firstLanguage(form)]}.`,
              part,
            ),
          ]
    }),
  /** Each thing asked is still there, can be answered, and has a reason. */
  asked: (form, { fields, usedBy, lettersLooked }) =>
    partsOf(form, 'field').flatMap((part) => {
      if (part.field === 'address') return []
      const field = fields.get(part.field)
      if (!field)
        return [
          blocker(
            'It asks for a field that is gone',
            `“${part.field}” is not there any more.`,
            part,
          ),
        ]
      const { name } = field
      const choose = field.kind === 'choice' || field.kind === 'choices'
      const used = usedBy.get(part.field) ?? 0
      return [
        ...(choose && part.choices.length === 0
          ? [blocker(`${name}: nothing can be chosen`, 'Say what there is to choose from.', part)]
          : []),
        ...(part.reason.trim() === ''
          ? [
              caution(
                `${name}: why is it asked?`,
                `The law wants a reason for each thing asked. ${
                  used === 0
                    ? `No letter of the last ${lettersLooked} used it.`
                    : `${used} of the last ${lettersLooked} letters used it.`
                }`,
                part,
              ),
            ]
          : []),
      ]
    }),
  pictures: (form) =>
    partsOf(form, 'picture').flatMap((part) =>
      !part.src
        ? [blocker('A picture is empty', 'Choose one, or remove it.', part)]
        : lacking(form, part.alt).length > 0
          ? [
              caution(
                'A picture has no alternative text',
                `It is read out to who can’t see it; missing in ${named(lacking(form, part.alt))}.`,
                part,
              ),
            ]
          : [],
    ),
  /** Who one deals with, and what becomes of what one enters. */
  imprint: (form, { postalAddress }) => [
    ...(postalAddress.trim() === ''
      ? [blocker('There is no postal address', 'Settings → Account says who you are.')]
      : []),
    ...(form.privacy
      ? []
      : [blocker('There is no link to what you do with it', 'Add it under Consent.')]),
    ...(partsOf(form, 'small').length === 0
      ? [
          blocker(
            'The small print is missing',
            'It says who you are, and leads to what you do with what is entered.',
          ),
        ]
      : []),
  ],
  contrast: (form, { letterhead }) => {
    const { paper, ink, accent, onAccent } = drawnLook(form, letterhead)
    const said = (ratio: number) => `${ratio.toFixed(1)} to 1, where ${READABLE} to 1 can be read.`
    return [
      ...(contrast(ink, paper) < READABLE
        ? [blocker('The text can’t be read on its background', said(contrast(ink, paper)))]
        : []),
      ...(contrast(onAccent, accent) < READABLE
        ? [blocker('The button can’t be read', said(contrast(onAccent, accent)))]
        : []),
    ]
  },
  /** The confirming letter leads to one place only. */
  letter: (form) =>
    form.languages.some((language) => /https?:|www\./i.test(form.letter.text[language] ?? ''))
      ? [
          caution(
            'The confirming letter leads elsewhere, too',
            'Its one button is what everything waits for. Links can come afterwards.',
          ),
        ]
      : [],
  thanks: (form) =>
    (['thanks', 'confirmed'] as const).flatMap((state) => {
      const { title } = form[state]
      return title[firstLanguage(form)]?.trim()
        ? []
        : [
            blocker(
              state === 'thanks' ? 'Thanks are empty' : 'What one sees when confirmed is empty',
              'Say what comes next.',
            ),
          ]
    }),
  /** What happens to whoever has confirmed can happen. */
  afterwards: (form, { fields, files, sequences }) => {
    const { promised, values, sequenceId, tell, webhook } = form
    const sequence = sequenceId === null ? null : sequences.get(sequenceId)
    const joins = purposesOf(form).flatMap(({ lists }) => lists)
    return [
      ...(promised.fileId !== null && !files.has(promised.fileId)
        ? [blocker('The promised file is gone', 'Choose it again under Afterwards.')]
        : []),
      ...values.flatMap(({ field: key, value }) => {
        const field = fields.get(key)
        if (!field) return [blocker('It sets a field that is gone', `“${key}” is not there.`)]
        return readFieldValue(value, field.kind) == null
          ? [blocker(`“${value}” is no value of ${field.name}`, 'Change it under Afterwards.')]
          : []
      }),
      ...(sequence === undefined
        ? [blocker('The sequence it starts is gone', 'Choose another under Afterwards.')]
        : []),
      ...(sequence && !sequence.running
        ? [
            caution(
              `The sequence ${sequence.name} is not running`,
              'Nobody comes in until it does.',
            ),
          ]
        : []),
      ...(sequence && (sequence.listId === null || !joins.includes(sequence.listId))
        ? [
            caution(
              `Nobody may come into ${sequence.name} by this form`,
              'It mails its own list, and the form does not lead to that.',
            ),
          ]
        : []),
      ...(tell.how !== 'never' && !tell.to
        ? [blocker('Nobody is named to be told', 'Say under Afterwards where the mail goes.')]
        : []),
      ...(webhook.startsWith('http:')
        ? [caution('The webhook is not encrypted', 'What was entered goes there in the clear.')]
        : []),
    ]
  },
  optIn: (form) =>
    form.doubleOptIn
      ? []
      : [
          caution(
            'Nobody confirms their address',
            'Slips and other people’s addresses get on the list; bounces and complaints cost you standing.',
          ),
        ],
  sites: (form) =>
    form.kind === 'hosted' || form.sites.length > 0
      ? []
      : [blocker('No site may show it', 'Name the sites on which it stands, under Placement.')],
}
