import { HOUR } from '../../time'
import {
  does,
  goal,
  mail,
  mornings,
  wait,
  waitFor,
  whatItBeganWith,
  type SequenceTemplate,
} from './build'

/** For those who buy. */
export const customers: SequenceTemplate[] = [
  {
    key: 'first-order',
    name: 'After the first order',
    about: 'Thanks, how to use it well, and how it went: three letters over two weeks',
    by: [{ is: 'ordered', first: true }],
    again: { is: 'never' },
    line: [
      mail(
        'Thank you for your first order',
        'What happens now, and who is there if something is wrong',
        'Thank you',
        [
          '[When it comes, and how.]',
          'If anything is wrong, answer this letter. A person reads it.',
        ],
        '[Where your order is]',
      ),
      wait(4, mornings),
      mail(
        'How to get the most out of it',
        'Five minutes that make a difference',
        'How to get the most out of it',
        ['[The one thing people learn too late.]', '[Care, set-up, first use.]'],
        '[Read how]',
      ),
      wait(9, mornings),
      mail(
        'How is it going?',
        'One press, or a sentence',
        'How is it going?',
        ['We would like to know, also where it is not as you hoped.'],
        '[Tell us]',
      ),
    ],
  },
  {
    key: 'basket',
    name: 'Basket left behind',
    about: 'Two letters to whoever filled a basket and did not order; whoever orders is out',
    by: [{ is: 'left behind', name: 'basket', unless: null, within: 4 * HOUR }],
    again: { is: 'each' },
    line: [
      mail(
        'Your basket is still here',
        'We keep it for three days',
        'Your basket is still here',
        ['Nothing is lost. If a question kept you, answer this letter.'],
        '[Go back to your basket]',
        [whatItBeganWith(1)],
      ),
      wait(1),
      mail(
        'Shall we help you choose?',
        'The three questions people ask before they buy',
        'The three questions people ask',
        ['[Question and answer.]', '[Question and answer.]', '[Question and answer.]'],
        '[Go back to your basket]',
      ),
      wait(3),
      goal('bought after all', { is: 'ordered' }),
    ],
  },
  {
    key: 'review',
    name: 'After a purchase: a review',
    about: 'Asks how it was once they have used it, and reminds once',
    by: [{ is: 'ordered', first: false }],
    again: { is: 'days', days: 60 },
    line: [
      wait(14, mornings),
      mail(
        'How was it?',
        'Two sentences of yours help others choose',
        'How was it?',
        [
          'You have had it for two weeks now. What would you tell somebody who thinks about buying it?',
        ],
        '[Write two sentences]',
      ),
      waitFor({ is: 'clicked', mail: null }, 6, [
        mail(
          'Two sentences?',
          'The last time we ask',
          'Two sentences?',
          ['Good or bad, both help. We do not ask again.'],
          '[Write two sentences]',
        ),
      ]),
      does({ is: 'tag', tag: 'was asked for a review' }),
    ],
  },
  {
    key: 'refill',
    name: 'Refill when due',
    about: 'Writes shortly before it runs out; whoever has ordered again gets nothing',
    by: [{ is: 'ordered', first: false }],
    again: { is: 'each' },
    line: [
      wait(40, mornings),
      mail(
        'Soon empty?',
        'The same again in two presses',
        'Soon empty?',
        ['Your [what it is] lasts about six weeks. The same again is two presses away.'],
        '[Order the same again]',
      ),
      wait(10),
      goal('ordered again', { is: 'ordered' }),
    ],
  },
]
