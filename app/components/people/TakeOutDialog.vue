<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'

/** Takes people out as a file: in which format, and which columns in which order. */
const props = defineProps<{
  /** Which people: the words of the form that the server reads. */
  which: Record<string, string>
  about: string
}>()
const emit = defineEmits<{ close: [] }>()
const { answer: columns } = useAnswer<{ key: string; name: string }[]>(
  () => '/api/people/export-columns',
  { live: false },
)
const formats = [
  {
    key: 'csv',
    name: 'CSV',
    about: 'for spreadsheets; cells that would run there are made harmless',
  },
  { key: 'json', name: 'JSON', about: 'for programs' },
  { key: 'vcard', name: 'vCard', about: 'for address books' },
]
const format = useLocalStorage('take-out-format', 'csv')
const chosen = useLocalStorage<string[]>('take-out-columns', [
  'field:first_name',
  'field:last_name',
  'tags',
  'lists',
  'joined',
])
const confirming = useConfirming()
async function takeOut(event: Event) {
  const form = event.target as HTMLFormElement
  if (!(await confirming.ready())) return
  form.submit()
  // Not at once: a form that is gone is not sent.
  setTimeout(() => emit('close'))
}
const all = computed(() => columns.value?.map(({ key }) => key) ?? [])
</script>

<template>
  <BaseDialog open title="Export people" @close="emit('close')">
    <p>{{ about }}</p>
    <form
      id="take-out-form"
      method="post"
      action="/api/people/export"
      class="mt-3"
      @submit.prevent="takeOut"
    >
      <input
        v-for="(value, name) in props.which"
        :key="name"
        type="hidden"
        :name="name"
        :value="value"
      />
      <input type="hidden" name="columns" :value="chosen.join(',')" />
      <fieldset>
        <legend class="muted">As</legend>
        <label v-for="one in formats" :key="one.key" class="flex items-baseline gap-2 py-0.5"
          ><input v-model="format" type="radio" name="format" :value="one.key" /><span
            ><b class="font-[560]">{{ one.name }}</b>
            <span class="muted">{{ one.about }}</span></span
          ></label
        >
      </fieldset>
      <fieldset class="mt-3">
        <legend class="muted">With the address</legend>
        <p class="small mb-1">
          <button type="button" class="link" @click="chosen = all">Everything</button>
          ·
          <button type="button" class="link" @click="chosen = []">nothing else</button>
        </p>
        <div class="max-h-[34vh] overflow-auto rounded-md border border-line p-1" tabindex="0">
          <ColumnChoice v-if="columns" v-model="chosen" :columns="columns" />
        </div>
      </fieldset>
    </form>
    <template #actions>
      <button type="button" class="btn" @click="emit('close')">Cancel</button>
      <button form="take-out-form" class="btn btn-go">Export</button>
    </template>
  </BaseDialog>
</template>
