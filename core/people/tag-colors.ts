/** The colours a tag may have, by name; how each looks is the page's business. */
export const tagColors = ['plain', 'green', 'brass', 'blue', 'red'] as const
export type TagColor = (typeof tagColors)[number]
