import {
  art,
  button,
  columns,
  facts,
  heading,
  letterOf,
  looking,
  middle,
  over,
  points,
  signed,
  space,
  text,
  together,
  wide,
  type Template,
} from './build'

export const greeting: Template[] = [
  {
    key: 'welcome',
    name: 'Welcome',
    purpose: 'Greet',
    about: 'The first letter to somebody new: who you are and what comes',
    words: 'new subscriber hello first joined',
    letter: letterOf(
      'Good to have you, {{ person.first_name | default: "friend" }}',
      'What you can expect from us, and where to begin.',
      [
        together(
          { ground: 'soft', space: 32 },
          heading('Good to have you, {first name}.', 1, 'center'),
          middle('[Say in one sentence who writes and what you care about.]'),
          wide('envelope', 'A letter that comes out of its envelope'),
        ),
        together({ space: 16 }, button('[Where to begin]', { align: 'center' })),
        over('What comes, and when'),
        facts(
          ['[Tuesday]', '[One thing worth knowing before anything else]'],
          ['[Saturdays]', '[The letter itself, three minutes to read]'],
          ['Never', '[What you never do]'],
        ),
        together(
          { ground: 'soft', space: 16 },
          heading('One question, so that it fits', 2),
          text('[What are you here for?] Answer this letter; one line is enough.'),
        ),
      ],
    ),
  },
  {
    key: 'thanks',
    name: 'Thank you',
    purpose: 'Greet',
    about: 'After an order, a gift or a long time: thanks, and nothing to sell',
    words: 'thanks gratitude after order donation',
    letter: letterOf(
      'Thank you',
      'No offer inside, only thanks.',
      [
        wide('heart', 'A heart over a wave'),
        together(
          { space: 24 },
          heading('Thank you, {first name}.', 1, 'center'),
          middle(
            '[Say what for, as exactly as you can.]',
            '[Say what came of it, for you or for others.]',
          ),
          button('See what came of it', { align: 'center', outline: true }),
        ),
        signed('[One sentence that only you could write.]', '[Your name]'),
      ],
      { headingFont: 'Georgia, "Times New Roman", serif', size: 16 },
    ),
  },
  {
    key: 'birthday',
    name: 'Birthday',
    purpose: 'Greet',
    about: 'Good wishes on the day, with a small present',
    words: 'birthday anniversary present gift wishes',
    letter: letterOf(
      'All the best today, {{ person.first_name | default: "friend" }}',
      'There is something in here for you.',
      [
        together(
          { ground: 'soft', space: 0 },
          wide('cake', 'A cake with one candle'),
          over('Today', 'center'),
          heading('All the best, {first name}.', 1, 'center'),
          middle('[A wish, in your own words.]'),
          button('[Take the present]', { align: 'center' }),
          middle('[What it is, and until when.]'),
          space(24),
        ),
      ],
      { corner: 20 },
    ),
  },
  {
    key: 'guide',
    name: 'Here is your guide',
    purpose: 'Greet',
    about: 'Hands over what somebody asked for: a guide, a pattern, a list',
    words: 'download receipt lead magnet pdf guide pattern',
    letter: letterOf('Here it is: [the guide]', 'The link is right on top.', [
      looking(
        columns(
          [3, 2],
          [
            over('As you asked for it'),
            heading('[The guide]', 2),
            text('PDF, [2.1 MB]. The link goes on working, so keep this letter.'),
            button('Open the guide'),
          ],
          [art('cover', 'The cover of the guide')],
        ),
        { ground: 'soft', space: 24 },
      ),
      heading('What is in it', 2),
      points('[the first thing one learns]', '[the second]', '[where most people go wrong]'),
      signed('[What to do with it first, in one sentence.]', '[Your name]'),
    ]),
  },
  {
    key: 'season',
    name: 'Season’s greeting',
    purpose: 'Greet',
    about: 'A card at the turn of the year: a picture, a wish, your names',
    words: 'holiday christmas new year winter card wishes',
    letter: letterOf(
      '[A calm winter] to you',
      '[When we are back]',
      [
        wide('winter', 'Snow on hills under a clear night sky'),
        together(
          { space: 32 },
          heading('Calm days, {first name}, and a good start.', 1, 'center'),
          middle('[What this year was like, in one sentence.]', '[When you open again.]'),
          space(8),
          heading('[Your names]', 2, 'center'),
          button('[See the year in pictures]', { align: 'center', outline: true }),
        ),
      ],
      { headingFont: '"Palatino Linotype", Palatino, "Book Antiqua", serif' },
    ),
  },
]
