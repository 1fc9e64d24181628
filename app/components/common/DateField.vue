<script setup lang="ts">
import { CalendarDays } from '@lucide/vue'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { dayText, momentText, readDayText, readMomentText, type Day } from '~~/core/time'

/**
 * A day ("2026-11-23"), or with `time` a day and a time on the wall ("2026-11-23T09:40"), typed in one way whatever the
 * browser; '' while what stands there is none. What cannot be read stays, and says so once it is left.
 */
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  modelValue: string | null
  time?: boolean
  /** Without the calendar, where there is no room for it. */
  bare?: boolean
}>()
const emit = defineEmits<{
  'update:modelValue': [value: string]
  /** Somebody is done with it; what stands there, '' for nothing. */
  taken: [value: string]
}>()
const { today } = useToday()
const shown = (value: string | null) =>
  value ? (props.time ? momentText(value) : dayText(value)) : ''
const read = (typed: string) => (props.time ? readMomentText : readDayText)(typed, today())
const text = ref(shown(props.modelValue))
const left = ref(false)
const unread = computed(() => left.value && text.value.trim() !== '' && read(text.value) === null)
watch(
  () => props.modelValue,
  (value) => {
    if ((value || '') !== (read(text.value) ?? '')) text.value = shown(value)
  },
)
function type(typed: string) {
  text.value = typed
  left.value = false
  emit('update:modelValue', read(typed) ?? '')
}
function leave() {
  left.value = true
  const found = read(text.value)
  if (found) text.value = shown(found)
  if (found || text.value.trim() === '') emit('taken', found ?? '')
}
function choose(day: Day, close: () => void) {
  const value = props.time ? `${day}T${props.modelValue?.slice(11) || '09:00'}` : day
  text.value = shown(value)
  emit('update:modelValue', value)
  emit('taken', value)
  close()
}
/** The calendar opens above where there is no room below. */
const above = ref(false)
const HEIGHT = 260
function place(event: MouseEvent) {
  const { top, bottom } = (event.currentTarget as HTMLElement).getBoundingClientRect()
  above.value = innerHeight - bottom < HEIGHT && top > HEIGHT
}
const id = useId()
const wanted = computed(() => (props.time ? 'like 23 Nov 2026 09:40' : 'like 23 Nov 2026'))
</script>

<template>
  <span class="relative inline-flex flex-col">
    <span class="inline-flex items-center gap-1">
      <input
        v-bind="$attrs"
        :value="text"
        type="text"
        autocomplete="off"
        spellcheck="false"
        :placeholder="($attrs.placeholder as string | undefined) ?? wanted"
        :aria-invalid="unread || undefined"
        :aria-describedby="unread ? id : undefined"
        @input="type(($event.target as HTMLInputElement).value)"
        @change="leave"
      />
      <Popover v-if="!bare" class="relative">
        <PopoverButton class="icon-btn" aria-label="Choose from a calendar" @click="place"
          ><CalendarDays :size="15" aria-hidden="true"
        /></PopoverButton>
        <PopoverPanel
          v-slot="{ close }"
          class="floats absolute right-0 z-40 rounded-md border border-line bg-sheet p-2.5"
          :class="above ? 'bottom-full mb-1' : 'mt-1'"
        >
          <MonthGrid
            :day="modelValue ? modelValue.slice(0, 10) : today()"
            :today="today()"
            @choose="choose($event, close)"
          />
        </PopoverPanel>
      </Popover>
    </span>
    <span v-if="unread" :id="id" class="fault small mt-0.5" role="alert"
      >Write {{ time ? 'a day and a time' : 'a day' }}, {{ wanted }}.</span
    >
  </span>
</template>
