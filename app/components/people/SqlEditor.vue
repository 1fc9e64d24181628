<script setup lang="ts">
import { startCompletion } from '@codemirror/autocomplete'
import { sql, SQLite } from '@codemirror/lang-sql'
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language'
import { Compartment, Prec } from '@codemirror/state'
import { EditorView, keymap } from '@codemirror/view'
import { tags } from '@lezer/highlight'
import { basicSetup } from 'codemirror'

/** Text of a query, with its words in colour and completed from the views. Tab leaves it, as in any field. */
const props = defineProps<{ modelValue: string; schema: Record<string, string[]> }>()
const emit = defineEmits<{ 'update:modelValue': [text: string]; run: [] }>()
const colors = HighlightStyle.define([
  { tag: tags.keyword, color: '#4a5a22', fontWeight: '600' },
  { tag: tags.string, color: '#8a5a00' },
  { tag: tags.number, color: '#2f5d8a' },
  { tag: tags.comment, color: '#5b6459', fontStyle: 'italic' },
])
const box = ref<HTMLElement>()
const language = new Compartment()
const dialect = () => language.reconfigure(sql({ dialect: SQLite, schema: props.schema }))
let view: EditorView | undefined
let written = false
onMounted(() => {
  view = new EditorView({
    parent: box.value!,
    doc: props.modelValue,
    extensions: [
      Prec.highest(
        keymap.of([{ key: 'Mod-Enter', run: () => (emit('run'), true), preventDefault: true }]),
      ),
      syntaxHighlighting(colors),
      basicSetup,
      language.of(sql({ dialect: SQLite, schema: props.schema })),
      EditorView.lineWrapping,
      EditorView.contentAttributes.of({ 'aria-label': 'Query' }),
      EditorView.updateListener.of((update) => {
        if (!update.docChanged) return
        written ||= update.transactions.some((one) => one.isUserEvent('input'))
        emit('update:modelValue', update.state.doc.toString())
      }),
    ],
  })
})
watch(
  () => props.schema,
  () => {
    view?.dispatch({ effects: dialect() })
    // Who was faster than the views is told of them where they write.
    if (view?.hasFocus && written) startCompletion(view)
  },
)
onBeforeUnmount(() => view?.destroy())
</script>

<template>
  <div ref="box" class="sql-editor rounded border border-line" />
</template>
