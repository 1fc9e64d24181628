import {
  does,
  goal,
  mail,
  mornings,
  wait,
  waitFor,
  waitUntil,
  type SequenceTemplate,
} from './build'

/** For days of theirs, and for those who do not read any more. */
export const occasions: SequenceTemplate[] = [
  {
    key: 'win-back',
    name: 'Win back',
    about:
      'Two letters to customers of a segment who have not bought for long; whoever orders is out',
    by: [{ is: 'segment', segmentId: 0, comes: true }],
    again: { is: 'days', days: 180 },
    line: [
      mail(
        'What is new since you were here',
        'Three things, no more',
        'What is new since you were here',
        ['[What has changed, in three lines.]'],
        '[See what is new]',
      ),
      wait(7, mornings),
      mail(
        'For old times’ sake',
        'Something for those who have bought before',
        'For old times’ sake',
        ['[What you offer, and until when.]'],
        '[Use it]',
      ),
      wait(14),
      goal('ordered again', { is: 'ordered' }),
    ],
  },
  {
    key: 'let-go',
    name: 'Gone quiet, and let go',
    about: 'Asks those who do not read any more; whoever does not answer leaves the list',
    by: [{ is: 'segment', segmentId: 0, comes: true }],
    again: { is: 'never' },
    line: [
      mail(
        'Shall we go on writing?',
        'One press either way',
        'Shall we go on writing?',
        ['You have not looked in for a while. Press below if you want to hear from us.'],
        '[Yes, go on]',
      ),
      waitFor({ is: 'clicked', mail: null }, 14, [
        mail(
          'The last letter, unless you say so',
          'We take you off the list in two weeks',
          'This is the last letter',
          ['If you do not press below, we take you off the list in two weeks. No hard feelings.'],
          '[I want to stay]',
        ),
        waitFor(
          { is: 'clicked', mail: null },
          14,
          [does({ is: 'tag', tag: 'let go' }, { is: 'leave', listId: null })],
          true,
        ),
      ]),
      does({ is: 'tag', tag: 'wants to stay' }),
    ],
  },
  {
    key: 'birthday',
    name: 'Birthday',
    about: 'A letter on the day, every year',
    by: [{ is: 'date', of: '', days: 0, yearly: true, hour: 8 }],
    again: { is: 'days', days: 300 },
    line: [
      mail(
        'Happy birthday, {{ person.first_name | default: "friend" }}',
        'Something small from us',
        'Happy birthday',
        ['[A wish as you would say it.]', '[Something small, and until when it can be had.]'],
        '[Take it]',
      ),
    ],
  },
  {
    key: 'event',
    name: 'Event reminder',
    about: 'A week before a date of theirs, the day before, and thanks the day after',
    by: [{ is: 'date', of: '', days: -7, yearly: false, hour: 9 }],
    again: { is: 'finished' },
    line: [
      mail(
        'In a week: [the event]',
        'What to bring, and how to get there',
        'In a week',
        ['[Where, when, and how one gets there.]', '[What to bring.]'],
        '[All about the day]',
      ),
      waitUntil({ is: 'date', of: '', days: -1, hour: 9 }),
      mail(
        'Tomorrow: [the event]',
        'The three things to know',
        'Until tomorrow',
        ['[The three things to know.]'],
        '[The way there]',
      ),
      waitUntil({ is: 'date', of: '', days: 1, hour: 10 }),
      mail(
        'Thank you for coming',
        'Pictures, and what comes next',
        'Thank you for coming',
        ['[What it was like, in two sentences.]', '[When the next one is.]'],
        '[See the pictures]',
      ),
    ],
  },
]
