import { mergeAttributes, Node } from '@tiptap/core'
import { readFillIn } from '~~/core/letters'

/** A fill-in in the text: one piece that can be chosen and deleted, shown as a chip. */
export const FillInNode = Node.create({
  name: 'fillIn',
  group: 'inline',
  inline: true,
  atom: true,
  addAttributes: () => ({ expression: { default: '' } }),
  parseHTML: () => [
    {
      tag: 'span[data-fill-in]',
      getAttrs: (element) => ({ expression: element.getAttribute('data-fill-in') ?? '' }),
    },
  ],
  renderHTML({ node, HTMLAttributes }) {
    const { path, fallback } = readFillIn(String(node.attrs.expression))
    const name = path.replace(/^person\./, '').replaceAll('_', ' ')
    const words = fallback === null ? name : `${name}, else “${fallback}”`
    return [
      'span',
      mergeAttributes(HTMLAttributes, {
        'data-fill-in': node.attrs.expression as string,
        class: 'fill-in',
      }),
      words,
    ]
  },
})
