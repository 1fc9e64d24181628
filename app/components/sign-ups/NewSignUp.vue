<script setup lang="ts">
import { kindNames, signUpTemplates } from '~~/core/sign-ups'

/** What a new sign-up is for; each purpose begins with what it asks and says. */
const emit = defineEmits<{ close: [] }>()
const live = useLive()
const busy = ref(false)
async function begin(template: (typeof signUpTemplates)[number]) {
  const goOn = wayOn()
  busy.value = true
  const body = { name: template.name, template: template.key }
  const made = await act<{ id: number }>('/api/sign-ups', 'POST', body)
  busy.value = false
  if (!made) return
  live.changes++
  emit('close')
  await goOn(`/sign-ups/${made.id}`, 'The sign-up is begun.')
}
</script>

<template>
  <BaseDialog open title="What is it for?" @close="emit('close')">
    <ul class="m-0 -mx-2 max-h-[56vh] list-none overflow-auto p-0">
      <li v-for="one in signUpTemplates" :key="one.key">
        <button
          type="button"
          class="flex min-h-11 w-full items-center justify-between gap-4 rounded px-2 py-1 text-left hover:bg-canvas-50"
          :disabled="busy"
          @click="begin(one)"
        >
          <span
            ><b class="block font-[560]">{{ one.name }}</b
            ><span class="muted small">{{ one.about }}</span></span
          ><span class="muted small flex-none">{{ kindNames[one.kind] }}</span>
        </button>
      </li>
    </ul>
    <template #actions><button class="btn" @click="emit('close')">Cancel</button></template>
  </BaseDialog>
</template>
