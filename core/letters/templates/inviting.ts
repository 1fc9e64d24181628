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

export const inviting: Template[] = [
  {
    key: 'event',
    name: 'Event',
    purpose: 'Invite',
    about: 'What, when, where, and how to come',
    words: 'invitation workshop course festival meeting date',
    letter: letterOf('[What], on [day]', '[Where, and for whom]', [
      picture('[The place, or last time]'),
      heading('[What it is called]'),
      block('table', {
        head: false,
        cells: [
          ['When', '[day, hours]'],
          ['Where', '[place]'],
          ['Costs', '[price]'],
        ],
      }),
      button('[Keep a place]'),
      text('[What happens there.]'),
      points('[who it is for]', '[what to bring]', '[what if it rains]'),
    ]),
  },
  {
    key: 'season',
    name: 'Season’s greeting',
    purpose: 'Greet',
    about: 'A greeting at the turn of a season or a year',
    words: 'holiday christmas new year winter spring card wishes',
    letter: letterOf(
      '[A good winter] to you',
      '[When we are back]',
      [
        looking(picture('[A picture of the season]'), {
          ground: '#22384f',
          ink: '#ffffff',
          space: 0,
        }),
        looking(heading('[A good winter] to you, {first name}', 1, { align: 'center' } as never), {
          ground: '#22384f',
          ink: '#ffffff',
          space: 16,
        }),
        text(
          '[What this year was like.]',
          '[What you look forward to.]',
          '[When you close and open again.]',
        ),
        divider(),
        button('[See the year in pictures]', { align: 'center' }),
      ],
      { headingFont: '"Palatino Linotype", Palatino, "Book Antiqua", serif' },
    ),
  },
  {
    key: 'survey',
    name: 'Survey',
    purpose: 'Invite',
    about: 'One question, answered with one press',
    words: 'question feedback opinion poll ask rating',
    letter: letterOf('One question', 'It takes one press.', [
      heading('[The one question]'),
      columns([1, 1, 1], [button('[Yes]')], [button('[Hardly]')], [button('[No]')]),
      text('[Why you ask, and what comes of the answers.]'),
    ]),
  },
]
