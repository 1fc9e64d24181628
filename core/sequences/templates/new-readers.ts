import { JOINED } from '../starts'
import { does, fork, goal, mail, mornings, wait, waitFor, type SequenceTemplate } from './build'

/** For those who have just come. */
export const newReaders: SequenceTemplate[] = [
  {
    key: 'welcome',
    name: 'Welcome in ten days',
    about: 'Four letters to whoever joins: who you are, where to begin, what others ask',
    by: [{ is: 'joined', signUpId: null }],
    again: { is: 'never' },
    line: [
      mail(
        'Good to have you here',
        'What comes, how often, and where to begin',
        'Good to have you here',
        [
          '[Say in one sentence who writes and what you care about.]',
          'Every [week] you get [what comes]. Nothing else, and one press below ends it.',
        ],
        '[Where to begin]',
      ),
      wait(2, mornings),
      mail(
        'What most people begin with',
        'Three things that are worth your time first',
        'Where to begin',
        ['[The one thing that new readers like most, and why.]', '[Two more, a sentence each.]'],
        '[See it]',
      ),
      wait(3, mornings),
      fork({ is: 'clicked', mail: null }, [does({ is: 'tag', tag: 'reads gladly' })]),
      mail(
        'How it came about',
        'A short story, and the people behind it',
        'How it came about',
        ['[How you began, told as you would at a table.]', '[What you learned from it.]'],
        '[Read the whole story]',
      ),
      wait(5, mornings),
      mail(
        'One question',
        'It takes a minute, and helps us write what you want to read',
        'What would you like to read?',
        ['Answer this letter, or choose on the page. We read every answer.'],
        '[Choose what you like]',
      ),
    ],
  },
  {
    key: 'course',
    name: 'Course by mail',
    about: 'Five lessons, one every two mornings, and a last letter that says what comes next',
    by: [{ is: 'joined', signUpId: null }],
    again: { is: 'never' },
    line: [
      ...['[the first step]', '[the tool]', '[the most common mistake]', '[the exercise]'].flatMap(
        (what, n) => [
          mail(
            `Lesson ${n + 1}: ${what}`,
            `[What one can do after lesson ${n + 1}]`,
            `Lesson ${n + 1}: ${what}`,
            ['[What it is about, in two sentences.]', '[What to do today, in ten minutes.]'],
            '[Open the lesson]',
          ),
          wait(2, mornings),
        ],
      ),
      mail(
        'Lesson 5: [all of it together]',
        'The last lesson, and where to go on',
        'You have all of it now',
        ['[What was learned, in a sentence.]', '[What one does with it from here.]'],
        '[Go on from here]',
      ),
      does({ is: 'tag', tag: 'took the course' }),
    ],
  },
  {
    key: 'waiting-list',
    name: 'Waiting list',
    about: 'Says that they are on it, keeps them warm, and sells the place once it is offered',
    by: [{ is: 'joined', signUpId: null }],
    again: { is: 'finished' },
    line: [
      mail(
        'You are on the list',
        'What happens next, and about when',
        'You are on the list',
        [
          '[How many wait, and how long it usually takes.]',
          'We write as soon as there is a place.',
        ],
        '[What you wait for]',
      ),
      waitFor(
        { is: 'did', event: 'place offered' },
        90,
        [
          mail(
            'Still waiting with us?',
            'There is no place yet; here is how things stand',
            'There is no place yet',
            ['[How things stand, honestly.]', 'You keep your place in the row.'],
            '[How things stand]',
          ),
        ],
        true,
      ),
      mail(
        'There is a place for you',
        'It is kept for three days',
        'There is a place for you',
        ['[What is offered.]', 'We keep it for three days, then somebody else gets it.'],
        '[Take the place]',
      ),
      wait(3),
      goal('took the place', { is: 'ordered' }),
    ],
  },
  {
    key: 'anniversary',
    name: 'Anniversary of joining',
    about: 'A letter on the day they joined, every year',
    by: [{ is: 'date', of: JOINED, days: 0, yearly: true, hour: 9 }],
    again: { is: 'days', days: 300 },
    line: [
      mail(
        'A year more with you',
        'Thank you, and something from us',
        'A year more with you',
        ['[What you made in this year, in three lines.]', '[A small thing for those who stayed.]'],
        '[Take it]',
      ),
    ],
  },
]
