import {
  block,
  button,
  columns,
  divider,
  heading,
  letterOf,
  looking,
  picture,
  points,
  text,
  type Template,
} from './build'

export const telling: Template[] = [
  {
    key: 'regular',
    name: 'Regular letter',
    purpose: 'Tell',
    about: 'The letter that comes every week or month: one story, two short ones',
    words: 'newsletter weekly monthly news round-up',
    letter: letterOf('[The one thing worth opening for]', '[The second thing in here]', [
      picture('[What one sees]'),
      heading('[The story of this letter]'),
      text('[How it began, in two sentences.]', '[What it means for the reader.]'),
      button('[Read it all]'),
      divider(),
      columns(
        [1, 1],
        [heading('[A short one]', 2), text('[Three lines, no more.]')],
        [heading('[Another]', 2), text('[Three lines, no more.]')],
      ),
    ]),
  },
  {
    key: 'announcement',
    name: 'One announcement',
    purpose: 'Tell',
    about: 'One piece of news, said once and well',
    words: 'launch news announce new release',
    letter: letterOf('[The news, in five words]', '[Why it matters to the reader]', [
      looking(
        heading('[The news, as you would tell it at the door]', 1, { align: 'center' } as never),
        { ground: '#22384f', ink: '#ffffff', space: 34 },
      ),
      text(
        '[What is new.]',
        '[What one can do now that one could not do before.]',
        '[When, where, for whom.]',
      ),
      button('[See it]', { align: 'center' }),
    ]),
  },
  {
    key: 'how-to',
    name: 'How to',
    purpose: 'Tell',
    about: 'Teaches one thing, step by step',
    words: 'tutorial lesson steps teach course instructions',
    letter: letterOf('How to [do one thing]', '[How long it takes and what one needs]', [
      heading('How to [do one thing]'),
      text('You need: [what one needs]. It takes [how long].'),
      button('[Where to ask when stuck]'),
      block('contents', { title: 'The steps' }),
      ...['first', 'second', 'third'].flatMap((step) => [
        columns(
          [1, 2],
          [picture(`[The ${step} step]`)],
          [
            heading(`[The ${step} step]`, 2),
            text('[What to do, and how one knows that it worked.]'),
          ],
        ),
      ]),
    ]),
  },
  {
    key: 'digest',
    name: 'Digest',
    purpose: 'Tell',
    about: 'Many short things to choose from, each with a link',
    words: 'summary links collection reading list latest',
    letter: letterOf(
      '[Number] things from [the week]',
      '[The best of them]',
      [
        heading('[The week] in short'),
        button('[The one thing not to miss]'),
        block('contents', { title: 'In this letter' }),
        ...['First', 'Second', 'Third', 'Fourth'].flatMap((one) => [
          heading(`[${one} thing]`, 2),
          text('[Two lines, and a link in the words that say where it leads.]'),
          divider(),
        ]),
      ],
      { headingFont: '"Trebuchet MS", Tahoma, sans-serif' },
    ),
  },
  {
    key: 'personal',
    name: 'Plain personal note',
    purpose: 'Tell',
    about: 'No picture, no button: a letter as one writes to a friend',
    words: 'plain text simple personal note founder',
    letter: letterOf(
      '[As you would write it to one person]',
      '',
      [
        text(
          'Hello {first name},',
          '[One thought, as you would say it.]',
          '[One question.] Answer this letter; I read every one.',
          '[Your name]',
        ),
      ],
      { ground: '#ffffff', textFont: 'Georgia, "Times New Roman", serif', size: 16 },
    ),
  },
  {
    key: 'year',
    name: 'The year in numbers',
    purpose: 'Tell',
    about: 'What came of a year, a project or a gift',
    words: 'review report impact numbers annual results',
    letter: letterOf('What came of [the year]', '[The number you are proudest of]', [
      heading('What came of [the year]'),
      looking(
        columns([1, 1, 1], ...['[12]', '[340]', '[5]'].map((n) => [heading(n), text('[of what]')])),
        { ground: '#eaf0e0', space: 12 },
        { narrow: 'keep' },
      ),
      text('[What stands behind one of these numbers.]'),
      block('table', {
        head: true,
        cells: [
          ['[What]', '[Before]', '[Now]'],
          ['', '', ''],
          ['', '', ''],
        ],
      }),
      button('[Read the whole report]'),
      points('[what comes next]', '[what readers can do]'),
    ]),
  },
]
