<script setup lang="ts">
/** Erases a person for good, after their address was written once more. */
const props = defineProps<{ person: { id: number; name: string; address: string } }>()
const emit = defineEmits<{ close: []; erasing: [boolean] }>()
const address = ref('')
async function erase() {
  emit('erasing', true)
  const done = await act(`/api/people/${props.person.id}/erase`, 'POST', { address: address.value })
  if (!done) return emit('erasing', false)
  useLive().changes++
  await goTo('/people')
  useNotices().say('This person is erased.')
}
</script>

<template>
  <BaseDialog open :title="`Erase ${person.name || person.address}`" @close="emit('close')">
    <p>
      Everything known of them goes for good: values, subscriptions and their evidence, notes,
      orders, what they read. Past results keep their counts, of nobody in particular. Only a keyed
      hash of the address stays, so that no import brings them back. <b>This can’t be undone.</b>
    </p>
    <form id="erase-form" class="mt-3" @submit.prevent="erase">
      <label for="erase-address" class="muted">Write {{ person.address }} to make sure</label>
      <input id="erase-address" v-model="address" class="field mt-1" autocomplete="off" />
    </form>
    <template #actions>
      <button type="button" class="btn" @click="emit('close')">Keep them</button>
      <button form="erase-form" class="btn btn-bad" :disabled="!address.trim()">
        Erase for good
      </button>
    </template>
  </BaseDialog>
</template>
