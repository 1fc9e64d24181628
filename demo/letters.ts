import {
  newBlock,
  type Block,
  type Inline,
  type Letter,
  type Row,
  type ShownTo,
} from '../core/letters'
import { rowOf } from '../core/letters/document'
import { richText } from '../core/letters/rich-text'
import { DAY } from '../core/time'
import { journal } from '../world/web/journal'

const site = 'https://galewright.example'

/** What differs between the demo's letters. */
export interface Words {
  subject: string
  preview: string
  title: string
  greeting?: boolean
  lines: (string | Inline[])[]
  /** What the sequence began with is shown. */
  basket?: boolean
  picture?: { src: string; alt: string; href: string }
  button: { label: string; path: string }
  more?: { words: string; path: string }[]
}

/** A letter of Galewright Kites from its words. */
export function letterFrom(words: Words): Letter {
  const blocks: Block[] = []
  const add = <B extends Block>(block: B) => blocks.push(block)
  if (words.picture)
    add({
      ...newBlock('picture', 'picture'),
      src: words.picture.src,
      alt: words.picture.alt,
      href: `${site}${words.picture.href}`,
    } as Block)
  add({ ...newBlock('heading', 'title'), text: richText(words.title) } as Block)
  const opening: (string | Inline[])[] = words.greeting
    ? [
        [
          { type: 'text', text: 'Hello ' },
          { type: 'fillIn', attrs: { expression: 'person.first_name | default: "there"' } },
          { type: 'text', text: ',' },
        ],
        ...words.lines,
      ]
    : words.lines
  add({ ...newBlock('text', 'opening'), text: richText(...opening) } as Block)
  if (words.basket) add({ ...newBlock('picks', 'basket'), by: 'began', many: 1 } as Block)
  add({
    ...newBlock('button', 'action'),
    label: words.button.label,
    href: `${site}${words.button.path}`,
  } as Block)
  if (words.more?.length)
    add({
      ...newBlock('text', 'more'),
      text: richText(
        ...words.more.map(({ words: text, path }) => [
          {
            type: 'text' as const,
            text,
            marks: [{ type: 'link' as const, attrs: { href: `${site}${path}` } }],
          },
        ]),
      ),
    } as Block)
  add({
    ...newBlock('footer', 'footer'),
    text: richText(
      'You get this because you asked for it in our shop, at a festival or on our site.',
    ),
  } as Block)
  return {
    subject: words.subject,
    previewText: words.preview,
    document: { version: 1, rows: blocks.map(rowOf) },
  }
}

const winds = [
  'Light air and long evenings',
  'A week of honest wind',
  'Force 5 till Sunday',
  'Gusts on Thursday, glass on Friday',
  'Onshore all week',
  'What the harbour flag says',
  'Three good afternoons',
  'Too much of a good thing',
  'Wind before breakfast',
  'Your week of wind',
]
const notes = [
  'Tie the bridle a finger lower than you think.',
  'Rinse your line in fresh water; salt cuts from inside.',
  'The beach at Hale Point is firm again after the storms.',
  'We tried carbon against glass spars, and both were right.',
  'A knot that holds wet: the bowline with one turn more.',
]

/** The n-th Wind notes. */
export function windNotes(n: number, pictures: Record<string, string>): Letter {
  return letterFrom({
    subject: n % 4 === 0 ? `${winds[n % winds.length]!}?` : winds[n % winds.length]!,
    preview: notes[n % notes.length]!,
    title: winds[n % winds.length]!,
    greeting: true,
    lines: [
      'The forecast for the coast is up, with an hour-by-hour table for every beach we fly.',
      notes[n % notes.length]!,
    ],
    picture: {
      src: pictures[n % 2 ? 'storm-front' : 'two-lines']!,
      alt: 'A kite over the hills of Sandreach',
      href: '/forecast',
    },
    button: { label: 'See the forecast', path: '/forecast' },
    more: [
      { words: 'Line care in five minutes', path: '/line-care' },
      { words: 'Beach reports', path: '/beach-reports' },
    ],
  })
}

const places = [
  'Build a delta in a day',
  'Spars, sleeves and stitches',
  'Repair day',
  'Sewing sails that last',
  'First stunt kite, first crash',
]
export function workshopNews(n: number, pictures: Record<string, string>): Letter {
  const title = places[n % places.length]!
  return letterFrom({
    subject: `${title}: ${n % 2 ? 'twelve' : 'eight'} places`,
    preview: 'Saturday in the loft, tea included.',
    title,
    greeting: true,
    lines: [
      'We have the loft from ten till four, all tools, and enough ripstop for everybody.',
      'Places go to whoever is first.',
    ],
    picture: { src: pictures.workbench!, alt: 'A workbench with a kite on it', href: '/workshop' },
    button: { label: 'Take a place', path: n % places.length === 2 ? '/repair-day' : '/workshop' },
  })
}

export const LATEST_OFFER = 12
const sales = [
  'New this month',
  'A fifth off spars and line',
  'The Delta 7 is back',
  'Last of the summer sails',
  'Kits for two rainy days',
]
/** An offer; the latest has something else for those who fly stunt or single-line kites. */
export function offer(n: number, pictures: Record<string, string>): Letter {
  const letter = letterFrom({
    subject: sales[n % sales.length]!,
    preview: 'Till Sunday, or till the shelf is empty.',
    title: sales[n % sales.length]!,
    lines: ['Made in Sandreach, tested on the beach below the workshop.', 'Post is free over £60.'],
    picture: { src: pictures['delta-7']!, alt: 'Delta 7 in red and plum', href: '/delta-7' },
    button: { label: 'See what is new', path: '/new-kites' },
    more: [{ words: 'Spars, line and small parts', path: '/spares' }],
  })
  return n === LATEST_OFFER ? withAlternatives(letter, pictures) : letter
}

/** The letter that is held: a page that is gone, and a greeting with a gap. */
export function galeSeasonSale(pictures: Record<string, string>): Letter {
  const letter = letterFrom({
    subject: 'Force 5 till Sunday, and a fifth off',
    preview: 'Gale season, 24 to 30 November.',
    title: 'The wind is back',
    lines: [
      [
        { type: 'text', text: 'The wind is back, ' },
        { type: 'fillIn', attrs: { expression: 'person.first_name' } },
        { type: 'text', text: '. Five days of steady force 5 are on the way to ' },
        { type: 'fillIn', attrs: { expression: 'person.town | default: "the coast"' } },
        { type: 'text', text: '.' },
      ],
      'Here is what we would fly, and what we have taken a fifth off until Sunday.',
    ],
    picture: {
      src: pictures['storm-front']!,
      alt: 'A kite before a storm front',
      href: '/gale-season',
    },
    button: { label: 'See the sale', path: '/gale-week' },
  })
  return withAlternatives(letter, pictures)
}

function withAlternatives(letter: Letter, pictures: Record<string, string>): Letter {
  const at = letter.document.rows.findIndex(({ id }) => id === 'r-action')
  letter.document.rows.splice(at, 0, ...alternatives(pictures))
  return letter
}

/** Stunt flyers see the Delta 7, those who fly single-line the line care; everyone else the beach. */
function alternatives(pictures: Record<string, string>): Row[] {
  const flies = (style: string): ShownTo => ({
    rule: { kind: 'field', key: 'flying_style', test: { is: 'includes', text: style } },
  })
  const side = (
    id: string,
    shownTo: ShownTo,
    picture: { src: string; alt: string; path: string },
    words: { title: string; line: string; label: string },
  ): Row => ({
    id: `r-${id}`,
    shownTo,
    style: { space: 10 },
    columns: [
      {
        share: 0.48,
        blocks: [
          {
            id: `${id}-picture`,
            kind: 'picture',
            src: picture.src,
            alt: picture.alt,
            href: `${site}${picture.path}`,
            width: 100,
          },
        ],
      },
      {
        share: 0.52,
        blocks: [
          {
            id: `${id}-title`,
            kind: 'heading',
            level: 2,
            align: 'left',
            text: richText(words.title),
          },
          { id: `${id}-line`, kind: 'text', text: richText(words.line) },
          {
            id: `${id}-button`,
            kind: 'button',
            label: words.label,
            href: `${site}${picture.path}`,
            align: 'left',
          },
        ],
      },
    ],
  })
  return [
    side(
      'stunt',
      flies('stunt'),
      { src: pictures['delta-7']!, alt: 'The Delta 7 from below', path: '/delta-7' },
      {
        title: 'Delta 7, for strong hands',
        line: 'Holds at force 6 and turns inside its own length.',
        label: 'See the Delta 7',
      },
    ),
    side(
      'single-line',
      flies('single-line'),
      { src: pictures['two-lines']!, alt: 'Two kites on their lines', path: '/line-care' },
      {
        title: 'Five minutes for your line',
        line: 'What salt does to it over a winter, and how to wash it out.',
        label: 'Care for the line',
      },
    ),
    {
      id: 'r-beach',
      shownTo: { rest: true },
      columns: [
        {
          share: 1,
          blocks: [
            {
              id: 'beach',
              kind: 'text',
              text: richText([
                { type: 'text', text: 'New to the wind? ' },
                {
                  type: 'text',
                  text: 'The beach reports',
                  marks: [{ type: 'link', attrs: { href: `${site}/beach-reports` } }],
                },
                { type: 'text', text: ' say where one learns well this week.' },
              ]),
            },
          ],
        },
      ],
    },
  ]
}

/** What stands under most letters. */
export const whereToFindUs: Row = {
  id: 'find-us',
  style: { ground: '#f3f4ef', space: 6 },
  columns: [
    {
      share: 1,
      blocks: [
        {
          id: 'find-us-links',
          kind: 'social',
          align: 'center',
          links: [
            { name: 'Beach reports', href: `${site}/beach-reports` },
            { name: 'Line care', href: `${site}/line-care` },
            { name: 'The shop', href: `${site}/new-kites` },
          ],
        },
      ],
    },
  ],
}

/** A letter with what is new in the shop's journal above its footer, as its feed told it now. */
export function withJournal(letter: Letter, now: number): Letter {
  const feed = {
    ...newBlock('feed', 'journal'),
    url: `${site}/journal.xml`,
    many: 2,
    entries: journal.map(([path, title, about, daysAgo]) => ({
      title,
      href: site + path,
      about,
      day: new Date(now - daysAgo * DAY).toISOString().slice(0, 10),
    })),
  } as Block
  const { rows } = letter.document
  const all = [...rows.slice(0, -1), rowOf(feed), ...rows.slice(-1)]
  return { ...letter, document: { ...letter.document, rows: all } }
}
