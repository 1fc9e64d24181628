import {
  art,
  block,
  button,
  columns,
  divider,
  facts,
  heading,
  letterOf,
  looking,
  middle,
  over,
  points,
  right,
  signed,
  space,
  text,
  together,
  wide,
  type Template,
} from './build'

/** The head of a paper: what it is called, and which issue this is. */
const masthead = () => ({
  ...columns([3, 2], [heading('[Name of the letter]', 2)], [right('No. [47], [28 November]')]),
  narrow: 'keep' as const,
})

export const telling: Template[] = [
  {
    key: 'regular',
    name: 'Regular letter',
    purpose: 'Tell',
    about: 'The letter that comes every week or month: one story, three short ones',
    words: 'newsletter weekly monthly news round-up',
    letter: letterOf(
      '[The one thing worth opening for]',
      '[The second thing in here]',
      [
        masthead(),
        divider(),
        over('This week'),
        heading('[The story of this letter]'),
        wide('hills', '[What one sees]'),
        space(16),
        text('[How it began, in two sentences.]', '[What it means for the reader.]'),
        button('Read it all'),
        divider(),
        columns(
          [1, 1, 1],
          ...['[A short one]', '[Another]', '[A third]'].map((name) => [
            heading(name, 3),
            text('[Two lines, no more.]'),
          ]),
        ),
        signed('Write back; I read everything.', '[Your name]'),
      ],
      { headingFont: 'Georgia, "Times New Roman", serif' },
    ),
  },
  {
    key: 'regular-pictures',
    name: 'Regular letter, with pictures',
    purpose: 'Tell',
    about: 'A picture over the whole width, then stories with a picture each',
    words: 'newsletter magazine monthly pictures stories',
    letter: letterOf('[The one thing worth opening for]', '[The second thing in here]', [
      wide('summer', '[What one sees]'),
      together(
        { space: 24 },
        over('[Month]', 'center'),
        heading('[The story of this letter]', 1, 'center'),
        middle('[What it is about, in two sentences.]'),
        button('Read the story', { align: 'center' }),
      ),
      ...[
        ['steps', '[The second story]'],
        ['table', '[The third]'],
      ].map(([drawing, name]) =>
        looking(
          columns(
            [2, 3],
            [art(drawing!, '[What one sees]')],
            [heading(name!, 2), text('[Three lines.]'), button('Read on', { outline: true })],
          ),
          { space: 8 },
        ),
      ),
    ]),
  },
  {
    key: 'regular-words',
    name: 'Regular letter, words alone',
    purpose: 'Tell',
    about: 'One column that looks written by hand: a thought, and three things worth a look',
    words: 'newsletter essay plain text column weekly',
    letter: letterOf(
      '[The thought, in five words]',
      '[How it goes on]',
      [
        over('[Name of the letter], No. [47]'),
        heading('[The thought, as you would say it]'),
        text('[What happened.]', '[What you made of it.]', '[What the reader might make of it.]'),
        divider(),
        heading('Three things worth a look', 2),
        points('[the first, with a link]', '[the second]', '[the third]'),
        button('Answer this letter', { outline: true }),
        text('[Your name]'),
      ],
      { textFont: 'Georgia, "Times New Roman", serif', size: 17 },
    ),
  },
  {
    key: 'announcement',
    name: 'One announcement',
    purpose: 'Tell',
    about: 'One piece of news, said once and well',
    words: 'launch news announce new release',
    letter: letterOf('[The news, in five words]', '[Why it matters to the reader]', [
      together(
        { ground: 'strong', space: 40 },
        over('New', 'center'),
        heading('[The news, as you would tell it at the door]', 1, 'center'),
        middle('[What one can do now that one could not do before.]'),
        button('See it', { align: 'center' }),
        wide('night', '[The new thing]'),
      ),
      space(16),
      columns(
        [1, 1, 1],
        ...[
          ['What it is', '[In one sentence.]'],
          ['For whom', '[In one sentence.]'],
          ['From when', '[The day.]'],
        ].map(([name, words]) => [heading(name!, 3), text(words!)]),
      ),
    ]),
  },
  {
    key: 'how-to',
    name: 'How to',
    purpose: 'Tell',
    about: 'Teaches one thing, step by step',
    words: 'tutorial steps teach instructions guide',
    letter: letterOf('How to [do one thing]', '[How long it takes and what one needs]', [
      wide('sheet', '[The thing when it is done]'),
      heading('How to [do one thing]'),
      facts(['It takes', '[ten minutes]'], ['You need', '[what one needs]']),
      button('Ask when you are stuck', { outline: true }),
      ...['first', 'second', 'third'].map((step, n) =>
        looking(
          columns(
            [1, 6],
            [heading(String(n + 1))],
            [
              heading(`[The ${step} step]`, 2),
              text('[What to do, and how one knows that it worked.]'),
            ],
          ),
          { space: 4 },
          { narrow: 'keep' },
        ),
      ),
    ]),
  },
  {
    key: 'lesson',
    name: 'Lesson of a course',
    purpose: 'Tell',
    about: 'One lesson of several: what it is about, what to do, what comes next',
    words: 'course by mail lesson class learn series',
    letter: letterOf('Lesson [2]: [what it is about]', '[Ten minutes], and one thing to try.', [
      together(
        { ground: 'soft', space: 32 },
        over('Lesson [2] of [5]'),
        heading('[What one can do after it]'),
        text('[Why it comes now.]'),
        button('Begin the lesson'),
      ),
      space(16),
      text('[The one idea of it, in three sentences.]'),
      art('steps', '[What it looks like]'),
      text('[What most people get wrong, and how to notice.]'),
      together(
        { ground: 'strong', space: 24 },
        over('To try before the next one'),
        heading('[One thing, in ten minutes]', 2),
        text('[What to do, and how one knows that it worked.]'),
      ),
      text('Next: [lesson 3], on [Friday].'),
    ]),
  },
  {
    key: 'digest',
    name: 'Digest',
    purpose: 'Tell',
    about: 'Many short things to choose from, each with a link',
    words: 'summary links collection reading list latest',
    letter: letterOf('[Five] things from [the week]', '[The best of them]', [
      masthead(),
      divider(),
      heading('[The week] in short'),
      button('The one not to miss'),
      ...['hills', 'table', 'thing-three'].map((drawing, n) =>
        looking(
          columns(
            [1, 3],
            [art(drawing, '[What one sees]')],
            [
              heading(`[${['First', 'Second', 'Third'][n]} thing]`, 3),
              text('[Two lines, and a link in the words that say where it leads.]'),
            ],
          ),
          { space: 8 },
          { narrow: 'keep' },
        ),
      ),
      together(
        { ground: 'soft', space: 16 },
        over('Also'),
        points('[a fourth]', '[a fifth]', '[a sixth]'),
      ),
    ]),
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
      wide('steps', 'Columns that grow from left to right'),
      over('[The year]'),
      heading('What came of it, and who did it'),
      text('[In two sentences, for somebody who was part of it.]'),
      button('Read the whole report'),
      looking(
        columns(
          [1, 1, 1],
          ...[
            ['[12]', '[workshops]'],
            ['[340]', '[people]'],
            ['[5]', '[towns]'],
          ].map(([n, of]) => [heading(n!, 1, 'center'), middle(of!)]),
        ),
        { ground: 'strong', space: 24 },
        { narrow: 'keep' },
      ),
      block('table', {
        head: true,
        cells: [
          ['[What]', '[Before]', '[Now]'],
          ['[First]', '', ''],
          ['[Second]', '', ''],
        ],
      }),
      signed('[What stands behind one of these numbers.]', '[Your name]'),
    ]),
  },
]
