<script setup lang="ts">
/** Lets a paused sequence go on: those who waited all at once, or spread over a time. */
defineProps<{ busy: boolean }>()
const emit = defineEmits<{ close: []; resume: [spread: number] }>()
const spread = ref(0)
const isKnown = ref(false)
</script>

<template>
  <BaseDialog open title="Let it go on?" @close="emit('close')">
    <SpreadChoice v-model="spread" @known="isKnown = $event" />
    <p class="mt-3">
      From now on people come in again. Who would have come in meanwhile stays out.
    </p>
    <template #actions>
      <button class="btn" @click="emit('close')">Not yet</button>
      <button class="btn btn-go" :disabled="busy || !isKnown" @click="emit('resume', spread)">
        Go on
      </button>
    </template>
  </BaseDialog>
</template>
