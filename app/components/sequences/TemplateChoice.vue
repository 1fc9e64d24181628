<script setup lang="ts">
import { sequenceTemplates } from '~~/core/sequences/templates'

/** What an empty sequence can be begun from; each is an ordinary map, whose letters are written. */
const store = useSequence()
const busy = ref<string | null>(null)
async function begin(key: string, template: Parameters<typeof store.beginFrom>[0]) {
  busy.value = key
  await store.beginFrom(template)
  busy.value = null
}
interface Kept {
  id: number
  name: string
  about: string
}
const kept = useAnswer<Kept[]>(() => '/api/sequences/kept')
async function remove({ id, name }: Kept) {
  if (!(await act(`/api/sequences/kept/${id}`, 'DELETE'))) return
  await kept.reload()
  useNotices().say(`The template “${name}” is gone. Sequences begun from it stay.`, {
    label: 'Undo',
    run: () => void act(`/api/sequences/kept/${id}/restore`, 'POST').then(kept.reload),
  })
}
</script>

<template>
  <section aria-label="Begin from" class="mx-auto w-full max-w-[680px] px-4 pb-16">
    <h2>Or begin from one that is drawn</h2>
    <p class="muted small mt-1">
      Its letters are written, but for what stands in square brackets. Everything can be changed,
      and undone.
    </p>
    <p v-if="kept.problem.value" class="fault mt-2" role="alert">{{ kept.problem.value }}</p>
    <ul class="mt-3 grid grid-cols-2 gap-2">
      <li v-for="one in kept.answer.value" :key="`kept ${one.id}`" class="relative">
        <button
          type="button"
          class="sheet flex h-full w-full flex-col px-3 py-2 pr-20 text-left hover:border-ink-300"
          :disabled="busy !== null"
          @click="begin(`kept ${one.id}`, { kept: one.id })"
        >
          <b class="block font-semibold">{{ one.name }}</b>
          <span class="muted small block">{{
            one.about ? `Your own: ${one.about}` : 'Your own'
          }}</span>
        </button>
        <button
          v-may="'DELETE /api/sequences/kept/[id]'"
          type="button"
          class="btn btn-sm absolute top-1.5 right-1.5"
          :aria-label="`Delete the template ${one.name}`"
          @click="remove(one)"
        >
          Delete
        </button>
      </li>
      <li v-for="one in sequenceTemplates" :key="one.key">
        <button
          type="button"
          class="sheet flex h-full w-full flex-col px-3 py-2 text-left hover:border-ink-300"
          :disabled="busy !== null"
          @click="begin(one.key, { key: one.key })"
        >
          <b class="block font-semibold">{{ one.name }}</b>
          <span class="muted small block">{{ one.about }}</span>
        </button>
      </li>
    </ul>
  </section>
</template>
