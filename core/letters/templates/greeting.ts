import {
  button,
  columns,
  divider,
  heading,
  letterOf,
  looking,
  picture,
  points,
  quote,
  text,
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
        looking(heading('Good to have you, {first name}'), { ground: '#eaf0e0', space: 18 }),
        text('[Say in one sentence who writes and what you care about.]', 'From now on you get:'),
        points('[what comes, and how often]', '[what only readers get]', '[what you never do]'),
        button('[Where to begin]'),
        quote('[What a reader said about these letters.]', '[Name, place]'),
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
        heading('Thank you, {first name}', 1, { align: 'center' } as never),
        text(
          '[Say what for, as exactly as you can.]',
          '[Say what came of it, for you or for others.]',
        ),
        divider(),
        text('[Your name]'),
        button('[See what came of it]'),
      ],
      {
        headingFont: 'Georgia, "Times New Roman", serif',
        textFont: 'Georgia, "Times New Roman", serif',
        size: 17,
      },
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
        looking(picture('[A picture that makes one smile]'), { ground: '#f6e7d2', space: 0 }),
        looking(heading('All the best, {first name}!', 1, { align: 'center' } as never), {
          ground: '#f6e7d2',
        }),
        text('[A wish, in your own words.]', '[What the present is, and until when.]'),
        button('[Take the present]', { align: 'center' }),
      ],
      { accent: '#8a4b12', corner: 20 },
    ),
  },
  {
    key: 'guide',
    name: 'Here is your guide',
    purpose: 'Greet',
    about: 'Hands over what somebody asked for: a guide, a pattern, a list',
    words: 'download receipt lead magnet pdf guide pattern',
    letter: letterOf('Here it is: [the guide]', 'The link is right on top.', [
      heading('Here is [the guide]'),
      button('[Open the guide]'),
      text('Keep this letter: the link goes on working.', 'What is in it:'),
      points('[the first thing one learns]', '[the second]', '[where most people go wrong]'),
      columns(
        [1, 2],
        [picture('[The cover]')],
        [text('[What to do with it first, in two sentences.]')],
      ),
    ]),
  },
]
