<script setup lang="ts">
import { ChevronLeft, ChevronRight } from '@lucide/vue'
import { daysLater, dayText, monthOf, monthsLater, type Day } from '~~/core/time'

/** The days of a month, to choose one: arrows go by days and weeks, Page Up and Page Down by months. */
const props = defineProps<{ day: Day; today: Day }>()
const emit = defineEmits<{ choose: [day: Day] }>()
const at = ref(props.day)
const month = computed(() => monthOf(at.value))
const grid = ref<HTMLElement | null>(null)

async function key(event: KeyboardEvent) {
  const days = { ArrowLeft: -1, ArrowRight: 1, ArrowUp: -7, ArrowDown: 7 }[event.key]
  const months = { PageUp: -1, PageDown: 1 }[event.key]
  if (days === undefined && months === undefined) return
  event.preventDefault()
  if (days !== undefined) at.value = daysLater(at.value, days)
  else at.value = monthsLater(at.value, months!)
  await nextTick()
  grid.value?.querySelector<HTMLElement>('[tabindex="0"]')?.focus()
}
</script>

<template>
  <div class="w-[218px]">
    <div class="flex items-center justify-between">
      <button
        type="button"
        class="icon-btn"
        aria-label="The month before"
        @click="at = monthsLater(at, -1)"
      >
        <ChevronLeft :size="15" aria-hidden="true" />
      </button>
      <b class="font-[560]" aria-live="polite">{{ month.name }}</b>
      <button
        type="button"
        class="icon-btn"
        aria-label="The month after"
        @click="at = monthsLater(at, 1)"
      >
        <ChevronRight :size="15" aria-hidden="true" />
      </button>
    </div>
    <table
      ref="grid"
      class="mt-1.5 w-full table-fixed border-collapse text-center"
      role="grid"
      @keydown="key"
    >
      <thead>
        <tr class="muted small">
          <th
            v-for="weekday in ['Mo', 'Tu', 'We', 'Th', 'Fr', 'Sa', 'Su']"
            :key="weekday"
            class="h-6 !p-0 !text-center font-normal"
          >
            {{ weekday }}
          </th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="week in month.weeks" :key="week[0]">
          <td v-for="one in week" :key="one" class="p-0" :aria-selected="one === day">
            <button
              type="button"
              class="h-7 w-7 rounded-[5px] border border-transparent hover:bg-brass-100"
              :class="[
                one.slice(0, 7) !== at.slice(0, 7) && 'muted',
                one === day && 'border-brass-500 bg-brass-100 font-semibold',
                one === today && 'border-dashed !border-brass-500',
              ]"
              :tabindex="one === at ? 0 : -1"
              :aria-label="dayText(one)"
              @click="emit('choose', one)"
            >
              {{ Number(one.slice(8)) }}
            </button>
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
