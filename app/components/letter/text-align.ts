import { Extension } from '@tiptap/core'

/** Where a paragraph stands; the letter's rich text knows it, so the editor must keep it. */
export const ParagraphAlign = Extension.create({
  name: 'paragraphAlign',
  addGlobalAttributes() {
    return [
      {
        types: ['paragraph'],
        attributes: {
          textAlign: {
            default: null,
            parseHTML: (element: HTMLElement) => {
              const { textAlign } = element.style
              return textAlign === 'center' || textAlign === 'right' ? textAlign : null
            },
            renderHTML: ({ textAlign }: { textAlign?: string | null }) =>
              textAlign ? { style: `text-align: ${textAlign}` } : {},
          },
        },
      },
    ]
  },
})
