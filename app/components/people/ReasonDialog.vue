<script setup lang="ts">
/** Asks why, before something is done that is kept with its reason. */
defineProps<{ title: string; about: string; verb: string }>()
const emit = defineEmits<{ close: []; done: [reason: string] }>()
const reason = ref('')
</script>

<template>
  <BaseDialog open :title="title" @close="emit('close')">
    <p>{{ about }}</p>
    <form
      id="reason-form"
      class="mt-3"
      @submit.prevent="reason.trim() && emit('done', reason.trim())"
    >
      <label for="reason" class="muted">Why</label>
      <input
        id="reason"
        v-model="reason"
        class="field mt-1"
        maxlength="300"
        placeholder="asked by telephone"
      />
    </form>
    <template #actions>
      <button type="button" class="btn" @click="emit('close')">Cancel</button>
      <button form="reason-form" class="btn btn-go" :disabled="!reason.trim()">{{ verb }}</button>
    </template>
  </BaseDialog>
</template>
