/** The look of an account's letters. */
export interface Letterhead {
  /** Around the paper. */
  ground: string
  paper: string
  ink: string
  accent: string
  /** Stacks that end in a generic family, since mail programs have few fonts. */
  headingFont: string
  textFont: string
  /** Width of the paper in pixels. */
  width: number
}

export const defaultLetterhead: Letterhead = {
  ground: '#eceee7',
  paper: '#ffffff',
  ink: '#1a1e18',
  accent: '#22384f',
  headingFont: 'Georgia, "Times New Roman", serif',
  textFont: 'Verdana, Geneva, sans-serif',
  width: 600,
}
