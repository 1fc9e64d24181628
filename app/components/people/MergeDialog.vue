<script setup lang="ts">
/** Finds another person and makes the two one. */
const props = defineProps<{ person: { id: number; name: string; address: string } }>()
const emit = defineEmits<{ close: []; done: [] }>()
const words = ref('')
const found = useAnswer<{ people: { id: number; name: string; address: string }[] }>(
  () => (words.value.trim().length >= 2 ? `/api/find?q=${encodeURIComponent(words.value)}` : null),
  { live: false },
)
const others = computed(
  () => found.answer.value?.people.filter(({ id }) => id !== props.person.id) ?? [],
)
const chosen = ref<{ id: number; name: string; address: string } | null>(null)
async function merge() {
  const done = await act(`/api/people/${props.person.id}/merge`, 'POST', { gone: chosen.value!.id })
  if (!done) return
  useNotices().say('The two are one now.')
  emit('done')
}
</script>

<template>
  <BaseDialog open :title="`Merge with ${person.name || person.address}`" @close="emit('close')">
    <label for="merge-find" class="muted">Who is the same person?</label>
    <input
      id="merge-find"
      v-model="words"
      class="field mt-1"
      type="search"
      placeholder="Part of a name or address"
    />
    <div class="mt-2 max-h-44 overflow-auto">
      <label v-for="one in others" :key="one.id" class="flex items-center gap-2 py-1">
        <input v-model="chosen" type="radio" name="merge" :value="one" />{{
          one.name || one.address
        }}
        <span class="muted">{{ one.address }}</span>
      </label>
    </div>
    <p class="muted mt-3">
      {{ chosen ? chosen.address : 'The other' }} goes; mail, orders, notes and evidence come here.
      Where both have a value, the one here stays. Who left a list stays off it. This can’t be
      undone.
    </p>
    <template #actions>
      <button type="button" class="btn" @click="emit('close')">Cancel</button>
      <button type="button" class="btn btn-go" :disabled="!chosen" @click="merge">Merge</button>
    </template>
  </BaseDialog>
</template>
