<script setup lang="ts">
import { EditorContent, useEditor } from '@tiptap/vue-3'
import StarterKit from '@tiptap/starter-kit'
import { isEmptyText, type RichText } from '~~/core/letters'
import { isPrompt } from '~~/core/letters/wording'
import { FillInNode } from './fill-in-node'
import { pasteClean } from './pasted'
import { ParagraphAlign } from './text-align'

/** A text edited in place. What it holds is the letter's rich text, no more. */
const props = defineProps<{
  text: RichText
  label: string
  singleLine?: boolean
  chosen: boolean
}>()
const emit = defineEmits<{ change: [text: RichText]; slash: [] }>()
const store = useMailing()
const empty = () => isEmptyText(props.text)
let given = JSON.stringify(props.text)

const editor = useEditor({
  content: props.text,
  extensions: [
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
  ],
  editorProps: {
    attributes: () => ({
      class: `paper-text ${props.singleLine ? 'one-line' : ''}`,
      'aria-label': props.label,
      role: 'textbox',
      'aria-multiline': String(!props.singleLine),
    }),
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
  <div class="relative">
    <EditorContent :editor="editor" />
    <span
      v-if="isEmptyText(text)"
      class="pointer-events-none absolute top-0 left-0 font-normal text-ink-500"
      >{{ label === 'Heading' ? 'Heading' : 'Write, or type / to insert a block' }}</span
    >
  </div>
</template>
