<script setup lang="ts">
import { MOST_OF_DAYS_OFF_FILE, readDaysOff } from '~~/core/sequences'
import { dateText, type Day } from '~~/core/time'

/** Days on which nobody goes on, read from a calendar file. The file stays on this computer; its days go with the step. */
const props = defineProps<{ days: Day[] }>()
const emit = defineEmits<{ change: [days: Day[]] }>()
const { today } = useToday()
const problem = ref('')
const coming = computed(() => props.days.filter((one) => one >= today()))
async function read(event: Event) {
  const input = event.target as HTMLInputElement
  const file = input.files?.[0]
  // So that the same file can be chosen again.
  input.value = ''
  if (!file) return
  if (file.size > MOST_OF_DAYS_OFF_FILE)
    return void (problem.value = 'This file is larger than 1 MB. A calendar of days off is small.')
  const found = readDaysOff(await file.text(), today())
  if ('problem' in found) return void (problem.value = found.problem)
  problem.value = ''
  emit('change', found.days)
}
</script>

<template>
  <div class="grid gap-1.5">
    <div class="flex items-center gap-2">
      <label class="btn btn-sm cursor-pointer focus-within:outline-2"
        >{{ days.length ? 'Other days off…' : 'Days off from a calendar…'
        }}<input
          type="file"
          accept=".ics,.ical,text/calendar"
          class="sr-only"
          aria-label="Days off from a calendar file"
          @change="read"
      /></label>
      <button v-if="days.length" type="button" class="link small" @click="emit('change', [])">
        Remove
      </button>
    </div>
    <p v-if="problem" class="fault small" role="alert">{{ problem }}</p>
    <details v-if="days.length" class="small">
      <summary>
        {{ several(days.length, 'day off', 'days off')
        }}{{ coming[0] ? `, next ${dateText(coming[0])}` : '' }}
      </summary>
      <ul class="muted mt-1 grid max-h-40 grid-cols-2 gap-x-3 overflow-auto">
        <li v-for="one in days" :key="one">{{ dateText(one) }}</li>
      </ul>
    </details>
    <p v-if="days.length && !coming.length" class="small font-semibold text-brass-700">
      All of them are past. Choose a newer calendar.
    </p>
    <span v-if="!days.length" class="muted small"
      >iCalendar (.ics): its all-day events of the next three years.</span
    >
  </div>
</template>
