<script setup lang="ts">
import { officeHours, type OpenHours, type WaitStep } from '~~/core/sequences'

/** How long is waited, and within which hours it goes on. */
const props = defineProps<{ id: string; step: WaitStep }>()
const store = useSequence()
function setHours(hours: OpenHours | null) {
  const { hours: _, ...without } = props.step
  void store.changeStep(props.id, hours ? { ...without, hours } : without)
}
/** Fields in which time zones may stand; one that is chosen and gone is not hidden. */
const clocks = computed(() => {
  const { clock } = props.step
  const some = store.sequence!.fields.filter(
    ({ key, kind, name }) => kind !== 'date' && /zone/i.test(`${key} ${name}`),
  )
  const isGone = clock !== undefined && !some.some(({ key }) => key === clock)
  return isGone ? [...some, { key: clock, name: 'a field that is gone' }] : some
})
/** Whether what it waits for has an hour or a day. */
const hasClock = computed(
  () =>
    props.step.hours !== undefined ||
    props.step.best ||
    (props.step.until && props.step.until.is !== 'happens'),
)
function setBest(on: boolean) {
  const { best: _, ...without } = props.step
  void store.changeStep(props.id, on ? { ...without, best: true } : without)
}
function setOff({ off: _, ...hours }: OpenHours, off: string[]) {
  setHours(off.length ? { ...hours, off } : hours)
}
function setClock(key: string) {
  const { clock: _, ...without } = props.step
  void store.changeStep(props.id, key ? { ...without, clock: key } : without)
}
const days = [
  ...(['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday'] as const).map(
    (name, n) => ({ name, day: n + 1 }),
  ),
  { name: 'Sunday', day: 0 },
]
function setDay(hours: OpenHours, day: number, on: boolean) {
  const next = on ? [...hours.days, day] : hours.days.filter((one) => one !== day)
  if (next.length) setHours({ ...hours, days: next.sort((a, b) => a - b) })
}
const clock = (minute: number) =>
  `${String(Math.floor(minute / 60) % 24).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`
function setTime(hours: OpenHours, which: 'from' | 'to', text: string) {
  const [hour, minute] = text.split(':').map(Number)
  if (hour === undefined || minute === undefined || Number.isNaN(hour + minute)) return
  const at = hour * 60 + minute
  const next = { ...hours, [which]: which === 'to' && at === 0 ? 24 * 60 : at }
  if (next.from < next.to) setHours(next)
}
</script>

<template>
  <h2>Wait</h2>
  <fieldset class="mt-2 grid gap-3" :disabled="!store.canChange">
    <WaitUntil :id="id" :step="step" />
    <label class="flex items-center gap-2"
      ><input
        type="checkbox"
        :checked="step.best === true"
        @change="setBest(($event.target as HTMLInputElement).checked)"
      />
      then until the hour they read most</label
    >
    <p v-if="step.best" class="muted small">
      By what they opened in the last 180 days; who has not opened enough goes by everybody’s.
      {{ step.hours ? 'Outside of the hours below: the nearest within them.' : '' }}
    </p>
    <label class="flex items-center gap-2"
      ><input
        type="checkbox"
        :checked="step.hours !== undefined"
        @change="setHours(($event.target as HTMLInputElement).checked ? officeHours : null)"
      />
      then until certain days and hours</label
    >
    <template v-if="step.hours">
      <div class="grid grid-cols-2 gap-x-3 gap-y-1">
        <label v-for="{ name, day } in days" :key="day" class="flex items-center gap-2"
          ><input
            type="checkbox"
            :checked="step.hours.days.includes(day)"
            :disabled="step.hours.days.length === 1 && step.hours.days.includes(day)"
            @change="setDay(step.hours!, day, ($event.target as HTMLInputElement).checked)"
          />
          {{ name }}</label
        >
      </div>
      <div class="flex items-center gap-2">
        <input
          class="field field-sm !w-auto"
          type="time"
          aria-label="From"
          :value="clock(step.hours.from)"
          @change="setTime(step.hours!, 'from', ($event.target as HTMLInputElement).value)"
        />
        to
        <input
          class="field field-sm !w-auto"
          type="time"
          aria-label="To"
          :value="clock(step.hours.to)"
          @change="setTime(step.hours!, 'to', ($event.target as HTMLInputElement).value)"
        />
      </div>
    </template>
    <DaysOff v-if="step.hours" :days="step.hours.off ?? []" @change="setOff(step.hours, $event)" />
    <label v-if="hasClock && clocks.length" class="grid gap-1"
      ><span class="muted small">By whose clock</span>
      <select
        class="field field-sm"
        :value="step.clock ?? ''"
        @change="setClock(($event.target as HTMLSelectElement).value)"
      >
        <option value="">the account’s</option>
        <option v-for="field in clocks" :key="field.key" :value="field.key">
          theirs, by “{{ field.name }}”
        </option>
      </select>
      <span v-if="step.clock !== undefined" class="muted small"
        >Who has no time zone there goes by the account’s.</span
      ></label
    >
    <p v-else-if="hasClock" class="muted small">
      By the account’s clock. With a field for people’s time zone, also by theirs.
    </p>
    <WayBackPick v-if="!step.until" :id="id" :step="step" />
  </fieldset>
</template>
