<script setup lang="ts">
import { labelled, LONGEST_LABEL, sameLabel, type Labelled } from '~~/core/labels'

/** Which labels something has. Each is put on or removed as it is pressed; a new one is made by its name. */
const props = defineProps<{ kind: Labelled; itemId: number; name: string }>()
const emit = defineEmits<{ close: [] }>()
const live = useLive()
const { labels, problem, labelsOn } = useLabels()
const typed = ref('')
/** What was pressed here, by the label's name. */
const pressed = ref(new Map<string, boolean>())
const field = useTemplateRef<HTMLInputElement>('field')
const has = (label: { id: number; name: string }) =>
  pressed.value.get(label.name) ??
  labelsOn(props.kind, props.itemId).some(({ id }) => id === label.id)
const found = computed(() =>
  (labels.value ?? []).filter(({ name }) =>
    name.toLowerCase().includes(typed.value.trim().toLowerCase()),
  ),
)
const isNew = computed(
  () =>
    labels.value !== null &&
    typed.value.trim() !== '' &&
    !labels.value.some(({ name }) => sameLabel(name, typed.value)),
)
/** What is pressed goes over in the order in which it is. */
let before: Promise<unknown> = Promise.resolve()
let underway = 0
async function press(name: string, on: boolean, id?: number) {
  pressed.value.set(name, on)
  underway++
  const { kind, itemId } = props
  before = before.then(async () => {
    const done = on
      ? await act('/api/labels', 'POST', { name, kind, itemId })
      : await act(`/api/labels/${id}/remove`, 'POST', { kind, itemId })
    if (!done) pressed.value.delete(name)
  })
  await before
  underway--
  live.changes++
}
/** What was pressed is shown until the server says the same; it may still be answering how it was before. */
watch(labels, (now) => {
  if (underway) return
  for (const label of now ?? [])
    if (pressed.value.get(label.name) === label.on[props.kind].includes(props.itemId))
      pressed.value.delete(label.name)
})
/** By Enter: the one of this name, or a new one. */
function take() {
  const name = typed.value.trim()
  if (!name || labels.value === null) return
  const known = labels.value.find((label) => sameLabel(label.name, name))
  void press(known?.name ?? name, true, known?.id)
  typed.value = ''
  field.value?.focus()
}
</script>

<template>
  <BaseDialog open :title="`Labels of ${name}`" @close="emit('close')">
    <form class="flex gap-2" @submit.prevent="take">
      <input
        ref="field"
        v-model="typed"
        class="field min-w-0 flex-1"
        aria-label="Find or add a label"
        placeholder="Find or add a label"
        :maxlength="LONGEST_LABEL"
        autocomplete="off"
      />
      <button v-if="isNew" class="btn btn-go max-w-[220px] truncate">
        Add “{{ typed.trim() }}”
      </button>
    </form>
    <p v-if="problem && !labels" class="fault mt-3" role="alert">{{ problem }}</p>
    <p v-else-if="labels?.length === 0 && !pressed.size" class="muted mt-3">
      No labels yet. Write one above: a season, a project, a kind of letter. Mailings, sequences and
      sign-ups are then found and seen together by it.
    </p>
    <div v-else class="mt-2 max-h-[38vh] overflow-auto" role="group" aria-label="Labels">
      <label
        v-for="label in found"
        :key="label.id"
        class="flex min-h-8 cursor-pointer items-center gap-2.5 rounded px-1.5 hover:bg-canvas-50"
      >
        <input
          type="checkbox"
          :checked="has(label)"
          @change="press(label.name, ($event.target as HTMLInputElement).checked, label.id)"
        />
        <span class="label-mark">{{ label.name }}</span>
        <span class="muted small ml-auto">{{ labelUse(label.on) }}</span>
      </label>
      <p v-if="labels && !found.length" class="muted mt-1 px-1.5">
        No label is called that. Enter adds it to this {{ labelled[kind].one }}.
      </p>
    </div>
    <template #actions
      ><NuxtLink class="link mr-auto self-center" to="/settings/labels" @click="emit('close')"
        >All labels</NuxtLink
      ><button type="button" class="btn btn-go" @click="emit('close')">Done</button></template
    >
  </BaseDialog>
</template>
