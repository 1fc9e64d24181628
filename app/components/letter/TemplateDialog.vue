<script setup lang="ts">
import type { Letter } from '~~/core/letters'
import { findTemplates } from '~~/core/letters/templates'
import type { OwnTemplate } from '~~/core/letters'

/** Another template for the letter that is there: its words stay. */
const emit = defineEmits<{ close: [] }>()
const store = useMailing()
const words = ref('')
const busy = ref(false)
const { answer: own } = useAnswer<OwnTemplate[]>(() => '/api/templates', { live: false })
const found = computed(() => [
  ...(own.value ?? [])
    .filter(({ name, about }) =>
      `${name} ${about}`.toLowerCase().includes(words.value.toLowerCase()),
    )
    .map(({ id, name, about }) => ({ key: `own-${id}`, name, about: about || 'your own' })),
  ...findTemplates(words.value, null),
])
async function take(key: string, name: string) {
  busy.value = true
  await store.flush()
  const poured = await act<Letter>(`/api/mailings/${store.mailing!.id}/template`, 'POST', {
    template: key,
  })
  busy.value = false
  if (!poured) return
  store.chosen = null
  store.change(poured, `template ${Date.now()}`)
  useNotices().say(`The letter looks like “${name}” now; the words are yours.`, {
    label: 'Undo',
    run: store.undo,
  })
  emit('close')
}
</script>

<template>
  <BaseDialog open title="Another template" @close="emit('close')">
    <p class="muted">
      Your headings, texts, pictures and buttons take the places of the template’s. Nothing you
      wrote goes away.
    </p>
    <input
      v-model="words"
      type="search"
      class="field mt-3"
      aria-label="Find a template"
      placeholder="what for: “thanks”, “event”, “sale”"
    />
    <ul class="m-0 mt-2 max-h-[42vh] list-none overflow-auto p-0">
      <li v-for="one in found" :key="one.key">
        <button
          type="button"
          class="flex min-h-8 w-full items-baseline justify-between gap-4 rounded px-2 py-1 text-left hover:bg-canvas-50"
          :disabled="busy"
          @click="take(one.key, one.name)"
        >
          <b class="flex-none font-[560]">{{ one.name }}</b><span class="muted small truncate">{{
            one.about
          }}</span>
        </button>
      </li>
    </ul>
    <p v-if="!found.length" class="muted mt-2">No template is called that.</p>
    <template #actions><button class="btn" @click="emit('close')">Cancel</button></template>
  </BaseDialog>
</template>
