<script setup lang="ts">
import { TextSelection } from '@tiptap/pm/state'
import type { EditorView } from '@tiptap/pm/view'
import { EditorContent, useEditor, type Editor } from '@tiptap/vue-3'
import { isEmptyText, type RichText } from '~~/core/letters'
import { isPrompt } from '~~/core/letters/wording'
import { pasteClean } from './pasted'
import { textExtensions } from './text-schema'

/** The editor of one text. `entered`: where in the window the writer came in, if they did. */
const props = defineProps<{
  text: RichText
  label: string
  singleLine?: boolean
  chosen: boolean
  entered: 'start' | { left: number; top: number } | null
}>()
const emit = defineEmits<{ change: [text: RichText]; slash: [] }>()
const store = useMailing()
const empty = () => isEmptyText(props.text)
let given = JSON.stringify(props.text)

const editor = useEditor({
  content: props.text,
  extensions: textExtensions,
  editorProps: {
    attributes: () => ({
      class: `paper-text ${props.singleLine ? 'one-line' : ''}`,
      'aria-label': props.label,
      role: 'textbox',
      'aria-multiline': String(!props.singleLine),
    }),
    // While the caret is in sight there is nothing to reckon about all that it stands in.
    handleScrollToSelection: (view) => {
      const sight = view.dom.closest('.overflow-auto')?.getBoundingClientRect()
      const caret = view.coordsAtPos(view.state.selection.head)
      return !!sight && caret.top >= sight.top && caret.bottom <= sight.bottom
    },
    handlePaste: (view, event) =>
      pastePicture(event) || pasteClean(view, event, !!props.singleLine),
    handleKeyDown: (view, event) => {
      const { $from, empty: nothingChosen } = view.state.selection
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault()
        takeSelection(view)
        store.linkAsked++
        return true
      }
      if (event.key === '/' && nothingChosen && $from.parent.content.size === 0) {
        event.preventDefault()
        // An empty line of a text with words goes; an empty text gives way to what is chosen.
        if (!empty() && $from.depth === 1)
          view.dispatch(view.state.tr.delete($from.before(), $from.after()))
        emit('slash')
        return true
      }
      if (event.key !== 'Enter' || !props.singleLine) return false
      if (store.chosen && $from.parentOffset === $from.parent.content.size)
        store.putBelow(store.chosen, 'text')
      return true
    },
  },
  // A prompt is there to be written over.
  onFocus: ({ editor: entered }) => {
    if (isPrompt(entered.getText())) setTimeout(() => entered.commands.selectAll())
  },
  onUpdate: ({ editor: changed }) => {
    const text = changed.getJSON() as RichText
    given = JSON.stringify(text)
    emit('change', text)
  },
})
/** Takes over what is marked on the page at once: the focus goes elsewhere before the editor would hear of it. */
function takeSelection(view: EditorView) {
  const { anchorNode, anchorOffset, focusNode, focusOffset } = getSelection() ?? {}
  if (!anchorNode || !focusNode || !view.dom.contains(anchorNode)) return
  const anchor = view.posAtDOM(anchorNode, anchorOffset!)
  const head = view.posAtDOM(focusNode, focusOffset!)
  const marked = TextSelection.create(view.state.doc, anchor, head)
  if (!marked.eq(view.state.selection)) view.dispatch(view.state.tr.setSelection(marked))
}
/** A picture that is pasted into a text stands under it. */
function pastePicture(event: ClipboardEvent): boolean {
  const file = [...(event.clipboardData?.files ?? [])].find(({ type }) => type.startsWith('image/'))
  const under = store.chosen
  if (!file || !under) return false
  const path = `/api/pictures?name=${encodeURIComponent(file.name)}`
  void act<{ path: string }>(path, 'POST', file).then(
    (made) => made && store.putBelow(under, 'picture', { src: made.path }),
  )
  return true
}
/** The caret goes where the writer pressed, as soon as the text stands on the paper. */
async function takeIn(mine: Editor) {
  await nextTick()
  await nextTick()
  const { entered } = props
  if (!entered || mine.isDestroyed) return
  mine.commands.focus(entered === 'start' ? 'start' : mine.view.posAtCoords(entered)?.pos)
}
watch(editor, (mine) => mine && takeIn(mine))
// The tools for the chosen text stand beside the paper.
watch(
  () => [props.chosen, editor.value] as const,
  ([chosen, mine]) => {
    if (chosen && mine) store.editor = markRaw(mine)
  },
  { immediate: true },
)
// Undo, or another window, brings a text this editor did not write.
watch(
  () => props.text,
  (text) => {
    const next = JSON.stringify(text)
    if (next === given) return
    given = next
    editor.value?.commands.setContent(text, { emitUpdate: false })
  },
)
</script>

<template>
  <EditorContent :editor="editor" />
</template>
