import {
  art,
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
  poster,
  product,
  quote,
  space,
  text,
  together,
  wide,
  type Template,
} from './build'

/** Four things, two by two. */
const four = (was?: string) => [
  columns([1, 1], [product('thing-one', was)], [product('thing-two', was)]),
  columns([1, 1], [product('thing-three', was)], [product('thing-one', was)]),
]

/** A sale at a time of the year: its picture, what it is off, until when, and four things. */
const seasonSale = (
  key: string,
  name: string,
  season: string,
  drawing: string,
  sees: string,
): Template => ({
  ...{ key, name, purpose: 'Sell', words: `discount offer season clearance reduced ${season}` },
  about: `A picture of ${season}, how much is off, until when, and four things`,
  letter: letterOf(`[−15%] for ${season}`, '[Until Sunday; what it is off, and what it is not]', [
    together(
      { ground: 'soft', space: 0 },
      wide(drawing, sees),
      space(16),
      over('Until [Sunday, 23:00]', 'center'),
      heading(`[−15%] for ${season}`, 1, 'center'),
      middle('[What it is off. What you put in the basket has the new price already.]'),
      button('See what is in it', { align: 'center' }),
      space(24),
    ),
    space(16),
    ...four('[£0]'),
    button('See all of them', { align: 'center', outline: true }),
  ]),
})

export const selling: Template[] = [
  {
    key: 'sale',
    name: 'Sale',
    purpose: 'Sell',
    about: 'What is cheaper, by how much, until when, with four things and old prices',
    words: 'discount offer reduced black friday clearance code',
    letter: letterOf('[−20%] until [Sunday]', '[What it is off, and what it is not]', [
      together(
        { ground: 'strong', space: 32 },
        over('Until [Sunday, 23:00]'),
        poster('[−20%]'),
        text('[on everything of which kind]'),
        wide('night', 'A bright thing in a dark sky'),
        heading('[Why now, in one sentence.]', 2),
        text('[Five] days, no code. What you put in the basket has the new price already.'),
        button('See all [41]'),
      ),
      space(24),
      ...four('[£0]'),
      button('Only what I have not bought yet', { align: 'center', outline: true }),
      text('Ends [day, hour, zone]. [What is not included.]'),
    ]),
  },
  seasonSale(
    ...(['spring-sale', 'Spring sale', 'spring', 'leaves', 'Leaves on a young branch'] as const),
  ),
  seasonSale(
    ...(['summer-sale', 'Summer sale', 'summer', 'summer', 'A sail under the sun'] as const),
  ),
  seasonSale(
    ...(['autumn-sale', 'Autumn sale', 'autumn', 'hills', 'Hills under a low sun'] as const),
  ),
  seasonSale(
    ...(['winter-sale', 'Winter sale', 'winter', 'winter', 'Hills in snow at night'] as const),
  ),
  {
    key: 'products',
    name: 'New arrivals',
    purpose: 'Sell',
    about: 'One thing large, four side by side, with prices',
    words: 'shop catalogue collection product grid range',
    letter: letterOf('New: [what is new]', '[The one you would take yourself]', [
      over('New'),
      heading('[What they have in common]'),
      text('[For whom they are, in one sentence.]'),
      button('See all of them'),
      wide('thing-two', '[The one you would take yourself]'),
      space(16),
      ...four(),
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
          [1, 1],
          [art('thing-three', '[The thing]')],
          [
            over('What helps'),
            heading('[The thing]', 2),
            text('[What it does, in one sentence.]'),
            button('See it'),
          ],
        ),
        { ground: 'soft', space: 24 },
      ),
      facts(['It brings', '[what]'], ['It costs', '[£0]'], ['If it is not right', '[what then]']),
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
      heading('It is still here, as you left it.'),
      text('You left something in your basket. It stays there until [Sunday evening].'),
      looking(
        columns(
          [1, 2],
          [art('thing-one', '[The thing]')],
          [heading('[Name]', 3), text('[One, in which colour. How many are left.]', '[£0]')],
        ),
        { ground: 'soft', space: 16 },
        { narrow: 'keep' },
      ),
      button('Back to my basket', { full: true }),
      columns(
        [1, 1, 1],
        ...[
          ['[60 days]', 'to send it back'],
          ['[Free]', '[what is free]'],
          ['[4.8 of 5]', 'from [312] who have it'],
        ].map(([name, words]) => [heading(name!, 3), text(words!)]),
      ),
    ]),
  },
  {
    key: 'after-purchase',
    name: 'After a purchase',
    purpose: 'Sell',
    about: 'It is on its way: what comes, how to begin, where to ask',
    words: 'order confirmation shipped delivery onboarding thanks',
    letter: letterOf('It is on its way', '[When it comes, and how to begin]', [
      wide('parcel', 'A parcel with a ribbon'),
      heading('It is on its way, {first name}.'),
      text('Thank you. [What happens next, in one sentence.]'),
      facts(['With you', '[Thursday]'], ['Brought by', '[whom]'], ['Order', '[number]']),
      button('See where it is'),
      divider(),
      heading('Before it comes', 2),
      points('[what to have ready]', '[what to do first]', '[what most people ask]'),
      together(
        { ground: 'soft', space: 16 },
        heading('Something is not right?', 3),
        text('Answer this letter. [Who reads it, and how soon they answer.]'),
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
      wide('envelope', 'A letter that was not opened'),
      together(
        { space: 16 },
        heading('Shall we go on, {first name}?'),
        text('You have not opened our letters for a while. That is fine. Tell us what you want:'),
        button('Yes, go on', { full: true }),
        button('Less often', { full: true, outline: true }),
      ),
      text('If we hear nothing by [day], we take you off the list ourselves.'),
      looking(
        columns(
          [1, 2],
          [art('hills', '[What they missed]')],
          [heading('What you missed', 3), text('[The best of it, in one sentence.]')],
        ),
        { ground: 'soft', space: 16 },
      ),
    ]),
  },
]
