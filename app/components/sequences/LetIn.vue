<script setup lang="ts">
/** Lets a segment into a running sequence by hand, with how many that are before. */
const store = useSequence()
const of = computed(() => store.sequence!)
const segment = ref('')
const busy = ref(false)
const { answer, problem, loading } = useAnswer<{ people: number; fresh: number }>(
  () => (segment.value ? `/api/sequences/${of.value.id}/people?segment=${segment.value}` : null),
  { live: false },
)
/** Of the segment that is chosen now: until it is answered, nothing is shown of the one before, and nobody is let in. */
const known = computed(() => (loading.value ? null : answer.value))
/** They are asked one by one whether they may: who was inside before comes again where the sequence says so. */
const often = computed(() => of.value.map.start.again.is !== 'never')
async function letIn() {
  busy.value = true
  const path = `/api/sequences/${of.value.id}/people`
  const done = await act<{ people: number }>(path, 'POST', { segmentId: Number(segment.value) })
  busy.value = false
  if (!done) return
  segment.value = ''
  useNotices().say(`${people(done.people)} are on their way in, as far as they may.`)
  await store.open(of.value.id)
}
</script>

<template>
  <div v-may="'POST /api/sequences/[id]/people'" class="mt-4 grid gap-1.5">
    <h3 class="font-semibold">Let people in</h3>
    <select v-model="segment" class="field field-sm" aria-label="Let in a segment">
      <option value="">choose a segment</option>
      <option v-for="one in of.segments" :key="one.id" :value="String(one.id)">
        {{ one.name }}
      </option>
    </select>
    <p v-if="segment && problem && !loading" class="fault small" role="alert">{{ problem }}</p>
    <p v-else-if="segment" class="small" role="status">
      <template v-if="known"
        >{{ people(known.people) }} of it are on the list and may be mailed;
        {{ count(known.fresh) }} were never inside.<template
          v-if="often && known.fresh < known.people"
        >
          Others come in where they may come again.</template
        ></template
      ><template v-else>Counting…</template>
    </p>
    <button
      v-if="segment"
      type="button"
      class="btn btn-sm justify-self-start"
      :disabled="busy || !known || (often ? known.people : known.fresh) === 0"
      @click="letIn"
    >
      Let them in
    </button>
    <p v-if="of.arriving" class="muted small" role="status">
      {{ people(of.arriving) }} are on their way in.
    </p>
  </div>
</template>
