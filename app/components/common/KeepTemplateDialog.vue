<script setup lang="ts">
/** Something kept as a template, to begin others from. */
const props = defineProps<{
  /** What it is called now. */
  name: string
  /** What goes along, in a sentence or two. */
  about: string
  /** Keeps it; whether that was done. */
  keep: (as: { name: string; about: string }) => Promise<boolean>
}>()
const emit = defineEmits<{ close: [] }>()
const called = ref(props.name)
const purpose = ref('')
const busy = ref(false)
async function send() {
  busy.value = true
  const kept = await props.keep({ name: called.value, about: purpose.value })
  busy.value = false
  if (kept) emit('close')
}
</script>

<template>
  <BaseDialog open title="Keep as a template" @close="emit('close')">
    <form id="keep-template" class="space-y-3" @submit.prevent="send">
      <FormField id="template-name" label="Name">
        <input id="template-name" v-model="called" class="field" maxlength="80" required />
      </FormField>
      <FormField id="template-about" label="What it is for">
        <input id="template-about" v-model="purpose" class="field" maxlength="200" />
      </FormField>
      <p class="muted small">{{ about }}</p>
    </form>
    <template #actions
      ><button class="btn" @click="emit('close')">Cancel</button
      ><button class="btn btn-go" form="keep-template" :disabled="busy || !called.trim()">
        Keep it
      </button></template
    >
  </BaseDialog>
</template>
