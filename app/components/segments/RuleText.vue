<script setup lang="ts">
import type { ParsedRule } from '~~/core/segments'

/** The rule as one line of text, to copy, paste and edit; a fault is pointed at. */
const emit = defineEmits<{ close: [] }>()
const store = useSegment()
const text = ref(store.counts?.text ?? '')
const fault = ref<{ message: string; at: number; length: number } | null>(null)
const box = ref<HTMLTextAreaElement | null>(null)
async function apply() {
  const read = await orNotice(question<ParsedRule>('/api/segments/read', { text: text.value }))
  if (!read) return
  if (read.ok) {
    store.change(read.rule)
    return emit('close')
  }
  fault.value = read
  box.value?.focus()
  box.value?.setSelectionRange(read.at, read.at + read.length)
}
</script>

<template>
  <form class="sheet p-3" @submit.prevent="apply">
    <label class="small muted block" for="rule-text">The rule as text</label>
    <textarea
      id="rule-text"
      ref="box"
      v-model="text"
      class="field mt-1"
      rows="3"
      spellcheck="false"
      :aria-invalid="fault !== null"
      :aria-describedby="fault ? 'rule-fault' : undefined"
      :disabled="store.fixed"
    />
    <p v-if="fault" id="rule-fault" class="fault mt-1" role="alert">
      {{ fault.message }}
      <span class="text-ink-700"
        >{{ text.slice(Math.max(0, fault.at - 30), fault.at)
        }}<mark class="bg-bad-100 text-bad-600 underline">{{
          text.slice(fault.at, fault.at + fault.length) || '▁'
        }}</mark
        >{{ text.slice(fault.at + fault.length, fault.at + fault.length + 20) }}</span
      >
    </p>
    <div class="mt-2 flex gap-2">
      <button class="btn btn-sm btn-go" :disabled="store.fixed">Use this text</button>
      <button type="button" class="btn btn-sm" @click="emit('close')">Close</button>
    </div>
  </form>
</template>
