<script setup lang="ts">
const store = useMailing()
const days = ref(30)
// Once a mailing, so that an answer from the server never replaces what is being typed.
watch(
  () => store.mailing?.id,
  () => (days.value = store.mailing?.joinedWithinDays ?? 30),
  { immediate: true },
)
const chosen = computed(() => store.mailing?.segmentId ?? store.mailing?.segments[0]?.id ?? null)
const words = {
  'on-list': 'Subscribed to the list',
  'set-aside': 'Set aside: bounced, complained or by hand',
  segment: 'Not in the segment',
}
const whole = computed(() => store.mailing?.waterfall?.[0]?.left ?? 0)
function setDays() {
  const n = Math.floor(days.value)
  if (n >= 1 && n <= 3650) void store.set({ joinedWithinDays: n })
}
</script>

<template>
  <div v-if="store.mailing" class="mx-auto max-w-3xl px-6 py-5">
    <h1>Audience</h1>
    <p class="muted mt-0.5">
      One list, since that is what people agreed to, and of it everybody or a segment.
    </p>
    <fieldset
      class="sheet mt-4 grid grid-cols-[130px_1fr] items-center gap-x-4 gap-y-3 p-4"
      :disabled="!store.canChange"
    >
      <label for="list">List</label>
      <select
        id="list"
        class="field max-w-md"
        :value="store.mailing.list_id ?? ''"
        @change="store.set({ listId: Number(($event.target as HTMLSelectElement).value) || null })"
      >
        <option value="">choose a list</option>
        <option v-for="list in store.mailing.lists" :key="list.id" :value="list.id">
          {{ list.name }} · {{ count(list.subscribers) }} subscribed
        </option>
      </select>
      <span>Segment</span>
      <div class="flex flex-wrap items-center gap-x-5 gap-y-2">
        <label class="flex items-center gap-2"
          ><input
            type="radio"
            name="segment"
            :checked="store.mailing.joinedWithinDays === null && store.mailing.segmentId === null"
            @change="store.set({ joinedWithinDays: null })"
          />everybody on it</label
        >
        <label class="flex items-center gap-2"
          ><input
            type="radio"
            name="segment"
            :checked="store.mailing.joinedWithinDays !== null"
            @change="store.set({ joinedWithinDays: days })"
          />who joined in the last</label
        >
        <span class="flex items-center gap-2"
          ><input
            class="field field-sm w-20"
            type="number"
            min="1"
            max="3650"
            aria-label="Days"
            v-model.number="days"
            @change="setDays"
          />days</span
        >
        <span v-if="store.mailing.segments.length" class="flex items-center gap-2"
          ><input
            id="in-segment"
            type="radio"
            name="segment"
            :checked="store.mailing.segmentId !== null"
            @change="store.set({ segmentId: chosen })"
          /><label for="in-segment" class="whitespace-nowrap">who are in</label>
          <select
            class="field field-sm"
            aria-label="Segment"
            :value="chosen"
            @change="store.set({ segmentId: Number(($event.target as HTMLSelectElement).value) })"
          >
            <option v-for="segment in store.mailing.segments" :key="segment.id" :value="segment.id">
              {{ segment.name }}
            </option>
          </select></span
        >
      </div>
    </fieldset>
    <div v-if="store.mailing.waterfall" class="sheet mt-4">
      <div class="sheet-head">
        <h2>Who drops out where</h2>
        <span
          ><b>{{ count(store.eligible) }}</b> <span class="muted">would get it now</span></span
        >
      </div>
      <table class="grid-table">
        <tbody>
          <tr v-for="step in store.mailing.waterfall" :key="step.step">
            <td>{{ words[step.step] }}</td>
            <td class="num w-28">
              {{ step.step === 'on-list' ? '' : step.out ? `− ${count(step.out)}` : 'nobody' }}
            </td>
            <td class="w-56">
              <div class="h-2.5 rounded-sm bg-line-soft">
                <div
                  class="h-full rounded-sm bg-canvas-500"
                  :style="{ width: `${whole ? (100 * step.left) / whole : 0}%` }"
                />
              </div>
            </td>
            <td class="num w-24 font-semibold">{{ count(step.left) }}</td>
          </tr>
        </tbody>
      </table>
    </div>
    <p v-if="!store.canChange" class="muted mt-3">
      The recipients were fixed when this mailing began to go out.
    </p>
  </div>
</template>
