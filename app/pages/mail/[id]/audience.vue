<script setup lang="ts">
import type { WaterfallTest } from '~~/core/delivery'

const store = useMailing()
const { dayAndTime } = useTimes()
const days = ref(30)
// Once a mailing, so that an answer from the server never replaces what is being typed.
watch(
  () => store.mailing?.id,
  () => (days.value = store.mailing?.joinedWithinDays ?? 30),
  { immediate: true },
)
const whole = computed(() => store.mailing?.waterfall?.[0]?.left ?? 0)
const cap = computed(() => store.mailing?.cap ?? null)
const capWords = computed(() =>
  cap.value
    ? `${several(cap.value.mailings, 'mailing', 'mailings')} in ${several(cap.value.days, 'day', 'days')}`
    : '',
)
const words = computed<Record<WaterfallTest, string>>(() => ({
  'on-list': 'Subscribed to the list',
  'set-aside': 'Suppressed: bounced, complained or by hand',
  segment: store.mailing!.segmentIds.length > 1 ? 'In none of the segments' : 'Not in the segment',
  'left-out': 'In an excluded segment',
  paused: 'Paused their mail themselves',
  'own-limit': 'Had the one they asked for in a week',
  cap: `Had ${capWords.value} already`,
}))
const choice = computed(() =>
  store.mailing!.segmentIds.length
    ? 'segments'
    : store.mailing!.joinedWithinDays !== null
      ? 'joined'
      : 'everybody',
)
/** The step whose people are looked at. */
const open = ref<WaterfallTest | null>(null)
function setDays() {
  const n = Math.floor(days.value)
  if (n >= 1 && n <= 3650) void store.set({ joinedWithinDays: n })
}
</script>

<template>
  <div v-if="store.mailing" class="mx-auto max-w-3xl px-6 py-5">
    <h1>Audience</h1>
    <p class="muted mt-0.5">
      One list, since that is what people agreed to, and of it everybody or some.
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
      <span class="self-start pt-1">Who of it</span>
      <div class="flex flex-wrap items-center gap-x-5 gap-y-2">
        <label class="flex items-center gap-2"
          ><input
            type="radio"
            name="segment"
            :checked="choice === 'everybody'"
            @change="store.set({ segmentIds: [] })"
          />everybody on it</label
        >
        <label class="flex items-center gap-2"
          ><input
            type="radio"
            name="segment"
            :checked="choice === 'joined'"
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
        <label v-if="store.mailing.segments.length" class="flex items-center gap-2"
          ><input
            type="radio"
            name="segment"
            :checked="choice === 'segments'"
            @change="store.set({ segmentIds: [store.mailing.segments[0]!.id] })"
          />who are in a segment</label
        >
        <SegmentPicks
          v-if="choice === 'segments'"
          class="w-full"
          label="Segment"
          joined="or in"
          :segments="store.mailing.segments"
          :chosen="store.mailing.segmentIds"
          keep-one
          @choose="store.set({ segmentIds: $event })"
        />
      </div>
      <template v-if="store.mailing.segments.length">
        <span>Excluded</span>
        <SegmentPicks
          label="Excluded segment"
          joined="and"
          :segments="store.mailing.segments"
          :chosen="store.mailing.leftOutIds"
          @choose="store.set({ leftOutIds: $event })"
        />
      </template>
      <template v-if="cap">
        <span>Frequency</span>
        <label class="flex items-center gap-2"
          ><input
            type="checkbox"
            :checked="!store.mailing.pastCap"
            @change="store.set({ pastCap: !($event.target as HTMLInputElement).checked })"
          />spare whoever had {{ capWords }} already</label
        >
      </template>
    </fieldset>
    <div v-if="store.mailing.waterfall" class="sheet mt-4">
      <div class="sheet-head">
        <h2>Who drops out where</h2>
        <span
          ><b>{{ count(store.eligible) }}</b> <span class="muted">would get it now</span
          ><template v-if="store.mailing.eligibleThen !== null">
            ·
            <b>{{ count(store.mailing.eligibleThen) }}</b>
            <span class="muted"
              >{{ dayAndTime(store.mailing.scheduled_at!) }}, if only time goes by</span
            >
          </template></span
        >
      </div>
      <table class="grid-table table-fixed">
        <tbody>
          <template v-for="step in store.mailing.waterfall" :key="step.step">
            <tr>
              <td>{{ words[step.step] }}</td>
              <td class="num w-28">
                <button
                  v-if="step.out"
                  class="link"
                  :aria-expanded="open === step.step"
                  :aria-label="`${count(step.out)} drop out: ${words[step.step]}. Who?`"
                  @click="open = open === step.step ? null : step.step"
                >
                  − {{ count(step.out) }}</button
                ><template v-else-if="step.step !== 'on-list'">nobody</template>
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
            <tr v-if="open === step.step">
              <td colspan="4" class="!p-0">
                <DropOuts :key="step.step" :step="step.step" :many="step.out" />
              </td>
            </tr>
          </template>
        </tbody>
      </table>
    </div>
    <p v-if="!store.canChange" class="muted mt-3">
      The recipients were fixed when this mailing began to go out.
    </p>
  </div>
</template>
