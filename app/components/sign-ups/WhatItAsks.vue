<script setup lang="ts">
import { partKinds, partsOf } from '~~/core/sign-ups'

/** Everything the form asks, with what may be left empty; and what can be added to it. */
const store = useSignUp()
const of = computed(() => store.signUp!)
const asked = computed(() => partsOf(of.value.form, 'field'))
const nameOfField = (key: string) =>
  key === 'address'
    ? 'E-mail address'
    : (of.value.fields.find((field) => field.key === key)?.name ?? key)
const others = computed(() =>
  of.value.fields.filter(({ key }) => !asked.value.some(({ field }) => field === key)),
)
function addField(event: Event) {
  const select = event.target as HTMLSelectElement
  if (select.value) store.add('field', { field: select.value })
  select.value = ''
}
const parts = partKinds.filter(({ kind }) => kind !== 'field' && kind !== 'button')
</script>

<template>
  <section class="border-b border-line px-4 py-3" aria-label="What it asks">
    <h2>What it asks</h2>
    <ul class="m-0 mt-1.5 list-none p-0">
      <li v-for="part in asked" :key="part.id">
        <button
          type="button"
          class="flex min-h-7 w-full items-center justify-between gap-3 rounded text-left hover:bg-canvas-50"
          @click="((store.shownState = 'first'), (store.chosen = part.id))"
        >
          <span class="truncate">{{ nameOfField(part.field) }}</span><span
            class="flex-none font-[520]"
            >{{
              part.field === 'address' ? 'always' : part.required ? 'needed' : 'may stay empty'
            }}</span
          >
        </button>
      </li>
    </ul>
    <template v-if="store.canChange">
      <select
        v-if="others.length"
        class="field field-sm mt-2 w-full"
        aria-label="Ask for another field"
        @change="addField"
      >
        <option value="">Ask for another field…</option>
        <option v-for="field in others" :key="field.key" :value="field.key">
          {{ field.name }}
        </option>
      </select>
      <div class="mt-2 flex flex-wrap gap-1" role="group" aria-label="Add to the form">
        <button
          v-for="one in parts"
          :key="one.kind"
          type="button"
          class="chip"
          :title="one.about"
          @click="((store.shownState = 'first'), store.add(one.kind))"
        >
          + {{ one.name }}
        </button>
      </div>
    </template>
  </section>
</template>
