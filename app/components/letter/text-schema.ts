import { getSchema } from '@tiptap/core'
import StarterKit from '@tiptap/starter-kit'
import { DOMSerializer, Node } from '@tiptap/pm/model'
import type { RichText } from '~~/core/letters'
import { FillInNode } from './fill-in-node'
import { ParagraphAlign } from './text-align'

/** What a text of a letter may hold: the letter's rich text, no more. */
export const textExtensions = [
  StarterKit.configure({
    heading: false,
    codeBlock: false,
    blockquote: false,
    horizontalRule: false,
    code: false,
    undoRedo: false,
    trailingNode: false,
    link: { openOnClick: false, autolink: true },
  }),
  FillInNode,
  ParagraphAlign,
]

const schema = getSchema(textExtensions)
const serializer = DOMSerializer.fromSchema(schema)

/** A text as its editor would draw it, without the editor. */
export function drawText(text: RichText): DocumentFragment {
  const { content } = Node.fromJSON(schema, text)
  return serializer.serializeFragment(content) as DocumentFragment
}
