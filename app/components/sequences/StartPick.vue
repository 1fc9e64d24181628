<script setup lang="ts">
import { JOINED, startKinds, type Starting } from '~~/core/sequences'

/** One way of coming in: what somebody newly does, or a date of theirs. */
defineProps<{ start: Starting }>()
const emit = defineEmits<{ change: [start: Starting]; remove: [] }>()
const store = useSequence()
const of = computed(() => store.sequence!)
const dates = computed(() => of.value.fields.filter(({ kind }) => kind === 'date'))
const value = (event: Event) => (event.target as HTMLSelectElement).value
const QUARTER = 90 * 24 * 60 * 60_000
</script>

<template>
  <div class="grid gap-1.5">
    <span class="flex items-center justify-between gap-2"
      ><b class="small font-semibold">{{ startKinds[start.is].name }}</b>
      <button
        type="button"
        class="btn btn-sm"
        :aria-label="`Remove: ${startKinds[start.is].name}`"
        @click="emit('remove')"
      >
        Remove
      </button></span
    >
    <select
      v-if="start.is === 'joined'"
      class="field field-sm"
      aria-label="By which sign-up"
      :value="start.signUpId ?? ''"
      @change="emit('change', { ...start, signUpId: Number(value($event)) || null })"
    >
      <option value="">by any way</option>
      <option v-for="form in of.signUps" :key="form.id" :value="form.id">
        by “{{ form.name }}”
      </option>
    </select>
    <EventPick
      v-else-if="start.is === 'event'"
      label="Which event starts it"
      :name="start.name"
      @change="emit('change', { ...start, name: $event })"
    />
    <label v-else-if="start.is === 'ordered'" class="flex items-center gap-2"
      ><input
        type="checkbox"
        :checked="start.first"
        @change="emit('change', { ...start, first: ($event.target as HTMLInputElement).checked })"
      />
      their first order alone</label
    >
    <template v-else-if="start.is === 'left behind'">
      <EventPick
        label="Which event is left behind"
        :name="start.name"
        @change="emit('change', { ...start, name: $event })"
      />
      <span class="muted small">and then, within</span>
      <LengthField
        label="Within"
        :ms="start.within"
        :most="QUARTER"
        @change="emit('change', { ...start, within: Math.max(300_000, $event) })"
      />
      <EventPick
        label="What does not follow"
        none="no order follows"
        :name="start.unless ?? ''"
        @change="emit('change', { ...start, unless: $event || null })"
      />
    </template>
    <template v-else-if="start.is === 'segment'">
      <select
        class="field field-sm"
        aria-label="Comes or leaves"
        :value="start.comes ? 'comes' : 'leaves'"
        @change="emit('change', { ...start, comes: value($event) === 'comes' })"
      >
        <option value="comes">comes into</option>
        <option value="leaves">leaves</option>
      </select>
      <select
        class="field field-sm"
        aria-label="Which segment starts it"
        :value="start.segmentId || ''"
        @change="emit('change', { ...start, segmentId: Number(value($event)) })"
      >
        <option value="">choose a segment</option>
        <option v-for="one in of.segments" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
      <span class="muted small">Looked at once a day. Who is in it already did not come.</span>
    </template>
    <template v-else>
      <select
        class="field field-sm"
        aria-label="Which date"
        :value="start.of"
        @change="emit('change', { ...start, of: value($event) })"
      >
        <option v-if="!start.of" value="">choose a date</option>
        <option v-for="field in dates" :key="field.key" :value="field.key">{{ field.name }}</option>
        <option :value="JOINED">the day they joined</option>
      </select>
      <DaysAround :days="start.days" @change="emit('change', { ...start, days: $event })" />
      <HourOfDay :hour="start.hour" @change="emit('change', { ...start, hour: $event })" />
      <label class="flex items-center gap-2"
        ><input
          type="checkbox"
          :checked="start.yearly"
          @change="
            emit('change', { ...start, yearly: ($event.target as HTMLInputElement).checked })
          "
        />
        every year</label
      >
    </template>
  </div>
</template>
