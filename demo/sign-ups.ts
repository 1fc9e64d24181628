import { readForm, type FormPart, type SignUpKind } from '../core/sign-ups'
import { DAY } from '../core/time'
import type { Database } from '../database'
import {
  addFile,
  addSignUp,
  changeSignUp,
  moveSignUp,
  publishSignUp,
  signUpById,
} from '../database/sign-ups'
import type { DemoLists } from './people'
import { comers, type Comers } from './sign-up-history'

const site = 'https://galewright.example'

/** A sign-up of the demo, as those who came in by it saw it. */
export interface DemoSignUp {
  id: number
  name: string
  versions: { version: number; from: number }[]
  /** Two versions that visitors see by lot since a time. */
  test: { from: number; versions: readonly [number, number] } | null
  /** Which box or button joins which list. */
  boxOf: Map<number, { partId: string; wording: string }>
  pages: (string | null)[]
  until: number
}

const said = (en: string) => ({ en })

/** Makes the five sign-ups of the account, with their versions; what came in by them comes with the people. */
export function makeSignUps(
  db: Database,
  lists: DemoLists,
  pictures: Record<string, string>,
  now: number,
): Comers {
  const began = now - 560 * DAY
  const box = (id: string, en: string, list: number | null): Partial<FormPart> & { id: string } =>
    ({
      id,
      kind: 'consent',
      text: said(en),
      lists: list ? [list] : [],
      oneMail: list === null,
    }) as never
  const name = {
    id: 'name',
    kind: 'field',
    field: 'first_name',
    reason: 'The letter greets by it.',
  }
  const address = { id: 'address', kind: 'field', field: 'address' }
  const small = { id: 'small', kind: 'small', text: {} }
  const heading = (en: string) => ({ id: 'heading', kind: 'heading', text: said(en) })
  const text = (en: string) => ({ id: 'text', kind: 'text', text: said(en) })
  const button = (en: string, list: number | null = null) => ({
    ...{ id: 'send', kind: 'button', label: said(en), lists: list ? [list] : [] },
  })
  const from = { id: 'from', kind: 'hidden', param: 'utm_source' }
  const guide = box('guide', 'Send me the guide. One mail, nothing else.', null)
  const wind = box(
    'wind',
    'Send me Wind notes as well: one letter a week, on Tuesdays. I can stop it with one click.',
    lists.windNotes,
  )
  const made = (
    signUp: { name: string; kind: SignUpKind; pages: (string | null)[]; until?: number },
    versions: { parts: object[]; from: number; over?: object }[],
    tested: { parts: object[]; from: number; over?: object } | null = null,
  ): DemoSignUp => {
    const form = (parts: object[], over: object = {}) =>
      readForm({
        ...{ kind: signUp.kind, languages: ['en'], doubleOptIn: true, parts },
        privacy: `${site}/privacy`,
        thanks: {
          title: said('Look into your mailbox'),
          text: said('A letter to confirm it is on its way. It takes a minute.'),
        },
        confirmed: {
          title: said('Thank you, it is done'),
          text: said('The next letter comes to you.'),
        },
        sites: signUp.kind === 'hosted' ? [] : [site],
        ...over,
      })!
    const [first] = versions
    const id = addSignUp(db, signUp.name, form(first!.parts, first!.over), first!.from)
    const numbered = versions.map(({ parts, from, over }, i) => {
      if (i > 0) changeSignUp(db, id, { name: signUp.name, form: form(parts, over) }, i)
      return { version: publishSignUp(db, id, i + 1, 'Wren Galewright', from)!, from }
    })
    const stands = versions.length
    const draw = (one: { parts: object[]; over?: object }, saw: number) =>
      changeSignUp(db, id, { name: signUp.name, form: form(one.parts, one.over) }, saw)
    if (tested) {
      draw(tested, stands)
      publishSignUp(db, id, stands + 1, 'Wren Galewright', tested.from, true)
      draw(versions.at(-1)!, stands + 1)
    }
    const test = tested && {
      ...{ from: tested.from, versions: [stands, stands + 1] as const },
    }
    const { form: last } = signUpById(db, id)!
    const boxOf = new Map(
      last.parts.flatMap((part) =>
        part.kind === 'consent' || part.kind === 'button'
          ? part.lists.map(
              (list) =>
                [
                  list,
                  {
                    partId: part.id,
                    wording: (part.kind === 'consent' ? part.text : part.label).en ?? '',
                  },
                ] as const,
            )
          : [],
      ),
    )
    return { ...signUp, id, versions: numbered, test, boxOf, until: signUp.until ?? Infinity }
  }
  const file = { name: 'Twelve beaches.pdf', mime: 'application/pdf', bytes: guidePdf() }
  const promised = {
    promised: {
      ...{ url: '', fileId: addFile(db, file, began) },
      name: said('Twelve beaches, the guide'),
    },
  }
  const beaches = [
    {
      id: 'picture',
      kind: 'picture',
      src: pictures.beach ?? Object.values(pictures)[0],
      alt: said('A wide beach with three kites over it'),
    },
    heading('Twelve beaches, and which wind each likes'),
    text('A guide of nine pages, by mail, at once.'),
  ]
  const forms = [
    made(
      {
        name: 'Twelve beaches guide',
        kind: 'in-page',
        pages: [`${site}/beaches`, `${site}/beach-reports`],
      },
      [
        {
          parts: [
            ...beaches.slice(1),
            name,
            address,
            box('guide', 'Send me the guide.', null),
            wind,
            button('Send it'),
            from,
            small,
          ],
          from: began,
          over: promised,
        },
        {
          parts: [
            ...beaches.slice(1),
            name,
            address,
            guide,
            wind,
            button('Send me the guide'),
            from,
            small,
          ],
          from: now - 300 * DAY,
          over: promised,
        },
        {
          parts: [...beaches, name, address, guide, wind, button('Send me the guide'), from, small],
          from: now - 120 * DAY,
          over: promised,
        },
      ],
      // Whether more come where nothing but the address is asked.
      {
        parts: [...beaches, address, guide, wind, button('Send me the guide'), from, small],
        from: now - 23 * DAY,
        over: promised,
      },
    ),
    made(
      {
        name: 'At the foot of every page',
        kind: 'in-page',
        pages: [`${site}/`, `${site}/shop`, `${site}/workshop`, `${site}/line-care`],
      },
      [
        {
          parts: [
            heading('What costs less, before it stands in the shop'),
            address,
            box(
              'offers',
              'Send me Offers, now and then. I can stop it with one click.',
              lists.offers,
            ),
            box(
              'workshop',
              'Send me Workshop news: courses and repair days, about twice a month.',
              lists.workshop,
            ),
            button('Put me on it'),
            small,
          ],
          from: began,
        },
      ],
    ),
    made({ name: 'Wind notes, its own page', kind: 'hosted', pages: [null] }, [
      {
        parts: [
          {
            id: 'picture',
            kind: 'picture',
            src: Object.values(pictures)[1],
            alt: said('Kites over the harbour'),
          },
          heading('Wind notes, every Tuesday'),
          text(
            'Where the wind will be for five days, what to fly in it, and one thing we learned in the workshop.',
          ),
          address,
          button('Send me Wind notes', lists.windNotes),
          from,
          small,
        ],
        from: began,
      },
    ]),
    made({ name: 'Festival desk', kind: 'hosted', pages: [null], until: now - 150 * DAY }, [
      {
        parts: [
          heading('Hello! Shall we write to you?'),
          text('Enter your address, and look into your mailbox at home.'),
          name,
          address,
          box('wind', 'Send me Wind notes: one letter a week.', lists.windNotes),
          box('offers', 'Send me Offers, now and then.', lists.offers),
          box('workshop', 'Send me Workshop news.', lists.workshop),
          button('Put me on it'),
          small,
        ],
        from: now - 260 * DAY,
      },
    ]),
  ]
  moveSignUp(db, forms[3]!.id, ['live'], 'paused')
  addSignUp(
    db,
    'Course places',
    readForm({
      ...{ kind: 'in-page', languages: ['en', 'de'], doubleOptIn: true, sites: [site] },
      parts: [
        {
          ...heading('Build your own delta'),
          text: { en: 'Build your own delta', de: 'Den eigenen Drachen bauen' },
        },
        text('Two days, four benches, all material. We write when the next date is set.'),
        name,
        {
          id: 'style',
          kind: 'field',
          field: 'flying_style',
          choices: ['single-line', 'stunt', 'power', 'indoor'],
          reason: '',
        },
        address,
        box(
          'workshop',
          'Send me Workshop news: courses and repair days, about twice a month.',
          lists.workshop,
        ),
        { ...button('Tell me first'), label: { en: 'Tell me first', de: 'Sagt mir Bescheid' } },
        small,
      ],
      privacy: `${site}/privacy`,
      thanks: { title: said('Look into your mailbox'), text: {} },
      confirmed: { title: said('Thank you, it is done'), text: {} },
    })!,
    now - 4 * DAY,
  )
  return comers(db, forms)
}

/** The guide: one page (PDF 1.4) that names the beaches. */
function guidePdf(): Buffer {
  const beaches = [
    ...['Orrin Strand', 'Sandreach', 'Long Nab', 'Tern Spit', 'The Saltings', 'Wick Bay'],
    ...['Gannet Sands', 'Low Ness', 'Marram Head', 'Skerry Point', 'The Flats', 'Mill Beach'],
  ]
  const lines = beaches.map((beach, i) => `(${i + 1}. ${beach}) Tj T*`).join(' ')
  const content = `BT /F 22 Tf 60 760 Td 30 TL (Twelve beaches, and which wind each likes) Tj T* /F 14 Tf 24 TL ${lines} ET`
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Resources << /Font << /F 5 0 R >> >> >>',
    `<< /Length ${content.length} >>\nstream\n${content}\nendstream`,
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
  ]
  let pdf = '%PDF-1.4\n'
  const places = objects.map((object, i) => {
    const at = pdf.length
    pdf += `${i + 1} 0 obj\n${object}\nendobj\n`
    return `${String(at).padStart(10, '0')} 00000 n \n`
  })
  const table = pdf.length
  pdf += `xref\n0 6\n0000000000 65535 f \n${places.join('')}trailer\n<< /Size 6 /Root 1 0 R >>\nstartxref\n${table}\n%%EOF\n`
  return Buffer.from(pdf, 'latin1')
}
