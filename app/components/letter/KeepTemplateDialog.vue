<script setup lang="ts">
/** The letter kept as a template, to start other letters from. */
const emit = defineEmits<{ close: [] }>()
const store = useMailing()
const name = ref(store.mailing!.name)
const about = ref('')
const busy = ref(false)
async function keep() {
  busy.value = true
  await store.flush()
  const kept = await act('/api/templates', 'POST', {
    mailingId: store.mailing!.id,
    name: name.value,
    about: about.value,
  })
  busy.value = false
  if (!kept) return
  useNotices().say(`Kept. “${name.value}” stands under “Write a letter” now.`)
  emit('close')
}
</script>

<template>
  <BaseDialog open title="Keep as a template" @close="emit('close')">
    <form id="keep-template" class="space-y-3" @submit.prevent="keep">
      <FormField id="template-name" label="Name">
        <input id="template-name" v-model="name" class="field" maxlength="100" required />
      </FormField>
      <FormField id="template-about" label="What it is for">
        <input id="template-about" v-model="about" class="field" maxlength="200" />
      </FormField>
      <p class="muted small">
        The letter as it is now, with its look. What you change in this mailing afterwards does not
        change the template.
      </p>
    </form>
    <template #actions
      ><button class="btn" @click="emit('close')">Cancel</button
      ><button class="btn btn-go" form="keep-template" :disabled="busy || !name.trim()">
        Keep it
      </button></template
    >
  </BaseDialog>
</template>
