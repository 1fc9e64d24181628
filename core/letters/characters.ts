import type { Letterhead } from './letterhead'

/** A look to begin a letterhead with: colours, type and corners that go together. */
export interface Character {
  name: string
  about: string
  look: Pick<
    Letterhead,
    | 'ground'
    | 'paper'
    | 'ink'
    | 'accent'
    | 'second'
    | 'headingFont'
    | 'textFont'
    | 'size'
    | 'corner'
  >
}

const georgia = 'Georgia, "Times New Roman", serif'
const palatino = '"Palatino Linotype", Palatino, "Book Antiqua", serif'
const verdana = 'Verdana, Geneva, sans-serif'
const arial = 'Arial, Helvetica, sans-serif'
const trebuchet = '"Trebuchet MS", Tahoma, sans-serif'

export const characters: Character[] = [
  {
    name: 'Slipway',
    about: 'Calm and blue, headings in a serif of books',
    look: {
      ...{ ground: '#e8ecef', paper: '#ffffff', ink: '#18222c', accent: '#1f4e79' },
      ...{ second: '#e0a03a', headingFont: georgia, textFont: arial, size: 16, corner: 4 },
    },
  },
  {
    name: 'Ember',
    about: 'Warm and loud, for a shop',
    look: {
      ...{ ground: '#f1ebe3', paper: '#fffdf8', ink: '#231a17', accent: '#b0382d' },
      ...{ second: '#f0b23e', headingFont: georgia, textFont: verdana, size: 15, corner: 4 },
    },
  },
  {
    name: 'Meadow',
    about: 'Fresh and round, for clubs, kitchens and gardens',
    look: {
      ...{ ground: '#e6ede4', paper: '#ffffff', ink: '#17261f', accent: '#1c6f5f' },
      ...{ second: '#e9a13b', headingFont: trebuchet, textFont: trebuchet, size: 16, corner: 22 },
    },
  },
  {
    name: 'Column',
    about: 'Black on white, as a paper that one reads for its words',
    look: {
      ...{ ground: '#ffffff', paper: '#ffffff', ink: '#161616', accent: '#7a1f1f' },
      ...{ second: '#b08a3c', headingFont: palatino, textFont: palatino, size: 17, corner: 0 },
    },
  },
  {
    name: 'Night watch',
    about: 'Light on dark, for evenings and launches',
    look: {
      ...{ ground: '#0d1526', paper: '#16223a', ink: '#f2efe6', accent: '#f0b23e' },
      ...{ second: '#7fb3d5', headingFont: georgia, textFont: arial, size: 16, corner: 4 },
    },
  },
]
