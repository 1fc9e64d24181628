import type { EditorView } from '@tiptap/pm/view'
import { cleanRichText } from '~~/core/letters'
import { pastedLine, pastedText } from '~~/core/letters/incoming'

/**
 * What is pasted as HTML, from a word processor or a page, with its paragraphs, lists, marks and links and nothing
 * else. Whether it was taken; plain text is left to the editor.
 */
export function pasteClean(view: EditorView, event: ClipboardEvent, singleLine: boolean): boolean {
  const html = event.clipboardData?.getData('text/html')
  // What comes from one of our own texts is clean, and knows its fill-ins.
  if (!html || html.includes('data-pm-slice')) return false
  const { schema } = view.state
  const paragraphs = singleLine ? [] : cleanRichText(pastedText(html)).content
  const only = paragraphs.length === 1 && paragraphs[0]!.type === 'paragraph' ? paragraphs[0] : null
  const inline = singleLine ? pastedLine(html) : only?.type === 'paragraph' ? only.content : null
  const nodes = (inline ?? paragraphs).map((node) => schema.nodeFromJSON(node))
  if (!nodes.length) return false
  const { from, to } = view.state.selection
  view.dispatch(view.state.tr.replaceWith(from, to, nodes).scrollIntoView())
  return true
}
