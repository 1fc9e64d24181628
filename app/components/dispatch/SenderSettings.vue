<script setup lang="ts">
/** Whom the mailing comes from. */
defineProps<{ plan: Plan }>()
const id = useId()
</script>

<template>
  <section class="sheet mt-4 p-4" :aria-labelledby="`${id}-title`">
    <h2 :id="`${id}-title`">From</h2>
    <SenderFields
      class="mt-2 grid-cols-2"
      :sender="plan.plan.value!.sender"
      :usual="plan.answer.value!.sender"
      @change="plan.change({ sender: $event })"
    />
  </section>
</template>
