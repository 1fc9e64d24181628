<script setup lang="ts">
import { fieldKinds, showFieldValue, type FieldKind, type FieldValue } from '~~/core/people'

/** Makes a field another kind, or joins it to another one; shows first what would be lost. */
const props = defineProps<{
  field: { key: string; name: string; kind: FieldKind; people: number }
  others: { key: string; name: string; kind: FieldKind }[]
}>()
const emit = defineEmits<{ close: []; done: [] }>()
const what = ref<'kind' | 'into'>('kind')
const kind = ref<FieldKind>(props.field.kind)
const into = ref('')
const asked = computed(() =>
  what.value === 'into' ? props.others.find(({ key }) => key === into.value)?.kind : kind.value,
)
const loss = useAnswer<{ kept: number; lost: number; examples: FieldValue[] }>(
  () =>
    asked.value && asked.value !== props.field.kind
      ? `/api/fields/${props.field.key}/retyping?kind=${asked.value}`
      : null,
  { live: false },
)
const shown = computed(() => (asked.value === props.field.kind ? null : loss.answer.value))
const ready = computed(() =>
  what.value === 'into' ? into.value !== '' : kind.value !== props.field.kind,
)
const job = ref<{ id: number; state: string; error: string | null } | null>(null)

async function start() {
  const body = what.value === 'into' ? { into: into.value } : { kind: kind.value }
  const begun = await act<{ job: number }>(`/api/fields/${props.field.key}/change`, 'POST', body)
  if (!begun) return
  job.value = { id: begun.job, state: 'waiting', error: null }
  while (job.value && ['waiting', 'running'].includes(job.value.state)) {
    await new Promise((go) => setTimeout(go, 250))
    job.value = await ask<{ id: number; state: string; error: string | null }>(
      `/api/jobs/${begun.job}`,
    )
  }
  emit('done')
  if (job.value?.state === 'done') emit('close')
}
</script>

<template>
  <BaseDialog open :title="`Change ${field.name}`" @close="emit('close')">
    <fieldset :disabled="job !== null" class="grid grid-cols-[150px_1fr] items-center gap-y-2">
      <label class="flex items-center gap-2"
        ><input v-model="what" type="radio" value="kind" />It holds</label
      >
      <select v-model="kind" class="field" aria-label="It holds" @change="what = 'kind'">
        <option v-for="one in fieldKinds" :key="one" :value="one">{{ kindWords[one] }}</option>
      </select>
      <label class="flex items-center gap-2"
        ><input v-model="what" type="radio" value="into" />Merge it into</label
      >
      <select v-model="into" class="field" aria-label="Merge it into" @change="what = 'into'">
        <option value="">choose a field</option>
        <option v-for="one in others" :key="one.key" :value="one.key">{{ one.name }}</option>
      </select>
    </fieldset>
    <p v-if="what === 'into'" class="muted mt-3">
      Who has no value there gets the one from here; where both are, the one there stays. Rules that
      ask for {{ field.name }} ask for the other then. {{ field.name }} goes.
    </p>
    <div v-if="shown" class="mt-3" role="status">
      <p>
        {{ people(shown.kept) }} keep their value<template v-if="shown.lost"
          >, <b class="text-bad-600">{{ people(shown.lost) }} lose it</b>: what can’t be read as
          {{ kindWords[asked!] }} is lost</template
        >.
      </p>
      <p v-if="shown.examples.length" class="mt-1">
        <span v-for="(one, i) in shown.examples" :key="i" class="tag mr-1">{{
          showFieldValue(one)
        }}</span>
      </p>
    </div>
    <p class="muted mt-3">This can’t be undone.</p>
    <p v-if="job?.error" class="fault mt-2" role="alert">{{ job.error }}</p>
    <template #actions>
      <button type="button" class="btn" @click="emit('close')">Cancel</button>
      <button type="button" class="btn btn-go" :disabled="!ready || job !== null" @click="start">
        {{ job && !job.error ? 'Changing…' : what === 'into' ? 'Merge' : 'Change' }}
      </button>
    </template>
  </BaseDialog>
</template>
