<script setup lang="ts">
import { withPlan, writingPlans, type WritingPlan } from '~~/core/letters/wording'

/** Ways to write a letter: each puts prompts on the paper, to be written over. */
const emit = defineEmits<{ close: [] }>()
const store = useMailing()
function take(plan: WritingPlan) {
  const { letter } = store
  if (!letter) return
  const document = withPlan(letter.document, plan, store.newId)
  store.change({ ...letter, document }, `plan ${Date.now()}`)
  useNotices().say('The prompts stand above the footer. Press one and write over it.', {
    label: 'Undo',
    run: store.undo,
  })
  emit('close')
}
</script>

<template>
  <BaseDialog open title="A plan to write by" @close="emit('close')">
    <ul class="m-0 max-h-[56vh] list-none space-y-1.5 overflow-auto p-0">
      <li v-for="plan in writingPlans" :key="plan.key">
        <button
          type="button"
          class="block w-full rounded border border-line px-3 py-2 text-left hover:border-brass-500 hover:bg-canvas-50"
          @click="take(plan)"
        >
          <b class="block font-[600]">{{ plan.name }}</b>
          <span class="muted block text-[12.5px]">{{ plan.about }}</span>
        </button>
      </li>
    </ul>
    <template #actions><button class="btn" @click="emit('close')">Cancel</button></template>
  </BaseDialog>
</template>
