<script setup lang="ts">
/**
 * A field whose text is taken when one is done with it. What is being typed stays, whatever arrives and is drawn
 * anew meanwhile; what was not taken gives way to the value there is.
 */
const props = defineProps<{ value: string | number }>()
const emit = defineEmits<{ taken: [text: string] }>()
const draft = ref(String(props.value))
watch(
  () => props.value,
  (value) => (draft.value = String(value)),
)
async function take() {
  emit('taken', draft.value)
  await nextTick()
  draft.value = String(props.value)
}
</script>

<template>
  <input :value="draft" @input="draft = ($event.target as HTMLInputElement).value" @change="take" />
</template>
