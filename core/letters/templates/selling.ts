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
  quote,
  space,
  text,
  type Template,
} from './build'

const product = () =>
  block('product', {
    name: '[Name]',
    about: '[Why one would want it]',
    price: '[£0]',
    label: 'See it',
  })

export const selling: Template[] = [
  {
    key: 'sale',
    name: 'Sale',
    purpose: 'Sell',
    about: 'What is cheaper, by how much, until when',
    words: 'discount offer reduced black friday clearance code',
    letter: letterOf(
      '[A fifth off] until [Sunday]',
      '[What it is off, and what it is not]',
      [
        looking(heading('[A fifth off] until [Sunday]', 1, { align: 'center' } as never), {
          ground: '#f3d9a4',
          space: 26,
        }),
        button('[See what is in it]', { align: 'center' }),
        columns([1, 1], [product()], [product()]),
        divider(),
        text('Ends [day, hour, zone]. [What is not included.]'),
      ],
      { accent: '#7a3b10' },
    ),
  },
  {
    key: 'products',
    name: 'Product grid',
    purpose: 'Sell',
    about: 'Six things side by side, with prices',
    words: 'shop catalogue collection new arrivals range',
    letter: letterOf('New: [what is new]', '[The one you would take yourself]', [
      heading('[What they have in common]'),
      button('[See all of them]'),
      columns([1, 1], [product()], [product()]),
      columns([1, 1], [product()], [product()]),
      columns([1, 1], [product()], [product()]),
    ]),
  },
  {
    key: 'one-product',
    name: 'One product',
    purpose: 'Sell',
    about: 'Problem, what helps, proof, offer',
    words: 'launch feature single product story proof',
    letter: letterOf('[The problem, in the reader’s words]', '[What helps]', [
      heading('[The problem, in the reader’s words]'),
      text('[How it feels when it happens.]', '[What most people try, and why it does not help.]'),
      looking(
        columns(
          [3, 2],
          [picture('[The thing]')],
          [
            heading('[What helps]', 2),
            text('[What it does, in one sentence.]'),
            button('[See it]'),
          ],
        ),
        { ground: '#eef1f4', space: 14 },
        { narrow: 'reverse' },
      ),
      points('[what it brings]', '[what it costs]', '[what if it is not right]'),
      quote('[What somebody says who has it.]', '[Name, place]'),
    ]),
  },
  {
    key: 'basket',
    name: 'Basket reminder',
    purpose: 'Sell',
    about: 'Something was left in a basket: how to go on',
    words: 'abandoned cart checkout left behind reminder',
    letter: letterOf('Still thinking it over?', 'Your basket is as you left it.', [
      heading('Your basket is as you left it', 2),
      product(),
      text(
        '[The question most people have at this point, and its answer.]',
        'If you have changed your mind, you need do nothing.',
      ),
    ]),
  },
  {
    key: 'win-back',
    name: 'Win back',
    purpose: 'Win back',
    about: 'To those who have gone quiet: stay, less often, or leave',
    words: 'reactivate inactive sunset quiet miss',
    letter: letterOf('Shall we go on writing to you?', 'One press, either way.', [
      heading('Shall we go on, {first name}?'),
      text('You have not opened our letters for a while. That is fine. Tell us what you want:'),
      button('Yes, go on'),
      text(
        '[What they missed, in one sentence.]',
        'If we hear nothing by [day], we take you off the list ourselves.',
      ),
      space(12),
    ]),
  },
]
