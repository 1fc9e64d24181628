<script setup lang="ts">
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
    handlePaste: (view, event) => pasteClean(view, event, !!props.singleLine),
    handleKeyDown: (_, event) => {
      if (event.key === '/' && empty()) {
        event.preventDefault()
        emit('slash')
        return true
      }
      return event.key === 'Enter' && !!props.singleLine
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
