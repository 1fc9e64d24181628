<script setup lang="ts">
import { happenings, type Until, type WaitStep } from '~~/core/sequences'

/** What is waited for: a time, something that happens, or a day. */
const props = defineProps<{ id: string; step: WaitStep }>()
const store = useSequence()
const of = computed(() => store.sequence!)
const dates = computed(() => of.value.fields.filter(({ kind }) => kind === 'date'))
const value = (event: Event) => (event.target as HTMLSelectElement).value
const LONGEST = 3_660 * 24 * 60 * 60_000
const { fits: _, ...asked } = happenings
const is = computed(() => props.step.until?.is ?? 'time')
/**
 * Where there is nothing to wait for any more, its other way goes, with what only that led to; where there is, nobody goes
 * back.
 */
function keep(until: Until | null) {
  const { until: _, ways, back, ...rest } = props.step
  const late = until?.is === 'happens' ? { ways: ways ?? [{ next: rest.next }] } : {}
  const kept = until ? { until, ...late } : { ...(back && { back }) }
  void store.changeStep(props.id, { ...rest, ...kept })
}
function choose(kind: string) {
  if (kind === 'happens') keep({ is: 'happens', what: { is: 'ordered' } })
  else if (kind === 'day') keep({ is: 'day', day: nextMonth(), hour: 9 })
  else if (kind === 'date') keep({ is: 'date', of: dates.value[0]?.key ?? '', days: 0, hour: 9 })
  else keep(null)
}
const live = useLive()
const nextMonth = () => new Date(live.now + 30 * 24 * 60 * 60_000).toISOString().slice(0, 10)
</script>

<template>
  <div class="grid gap-2">
    <select
      class="field field-sm"
      aria-label="What is waited for"
      :value="is"
      @change="choose(value($event))"
    >
      <option value="time">a time</option>
      <option value="happens">until something happens, or a time is over</option>
      <option value="day">until a day</option>
      <option value="date">until a date of theirs</option>
    </select>
    <HappeningPick
      v-if="step.until?.is === 'happens'"
      label="Until who waits"
      :kinds="asked"
      :what="step.until.what"
      @change="keep({ is: 'happens', what: $event })"
    />
    <span v-if="step.until?.is === 'happens'" class="muted small">at most</span>
    <LengthField
      v-if="!step.until || step.until.is === 'happens'"
      label="How long"
      :ms="step.ms"
      :most="LONGEST"
      @change="store.changeStep(id, { ...step, ms: $event })"
    />
    <JoinPick
      v-if="step.until?.is === 'happens'"
      :id="id"
      :way="1"
      label="Who did not in time: then on to"
    />
    <input
      v-if="step.until?.is === 'day'"
      type="date"
      class="field field-sm !w-auto justify-self-start"
      aria-label="Which day"
      :value="step.until.day"
      @change="value($event) && keep({ ...step.until, day: value($event) })"
    />
    <template v-if="step.until?.is === 'date'">
      <select
        class="field field-sm"
        aria-label="Which date"
        :value="step.until.of"
        @change="keep({ ...step.until, of: value($event) })"
      >
        <option v-if="!step.until.of" value="">
          {{ dates.length ? 'choose a date' : 'no field holds dates' }}
        </option>
        <option v-for="field in dates" :key="field.key" :value="field.key">{{ field.name }}</option>
      </select>
      <DaysAround :days="step.until.days" @change="keep({ ...step.until, days: $event })" />
    </template>
    <HourOfDay
      v-if="!step.best && (step.until?.is === 'day' || step.until?.is === 'date')"
      :hour="step.until.hour"
      :theirs="step.clock !== undefined"
      @change="step.until && 'hour' in step.until && keep({ ...step.until, hour: $event })"
    />
    <span v-if="step.until?.is === 'date'" class="muted small"
      >Who has no such date, or whose date is past, goes on at once.</span
    >
  </div>
</template>
