<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { localInputToTime, practiceRates, timeToLocalInput, HOUR, DAY } from '~~/core/time'

const live = useLive()
const session = useSession()
const { dayAndTime } = useTimes()
const jumping = computed(() => live.practice?.jumpTo ?? null)
const chosen = ref('')
const fault = ref('')

function open() {
  chosen.value = timeToLocalInput(live.now + DAY, session.zone)
  fault.value = ''
}
async function jump(to: number | null, close: () => void) {
  if (to === null) fault.value = 'Write a date and a time.'
  else if (to <= live.now)
    fault.value = 'The clock only goes forward. Choose a time that is still to come.'
  else {
    await live.setClock({ jumpTo: to })
    close()
  }
}
</script>

<template>
  <Popover class="relative">
    <PopoverButton
      class="h-7 rounded-[5px] border border-dashed border-[#7f8d56] px-2.5 text-[12px] text-[#e6ebd6]"
      @click="open"
    >
      <template v-if="jumping"
        >Jumping · {{ dayAndTime(live.now) }} → {{ dayAndTime(jumping) }}</template
      >
      <template v-else
        ><span class="max-xl:sr-only">Practice clock · </span>{{ dayAndTime(live.now) }} ·
        {{ live.practice?.rate }}×</template
      >
    </PopoverButton>
    <PopoverPanel
      v-slot="{ close }"
      class="floats absolute right-0 z-40 mt-1 w-80 whitespace-normal rounded-md border border-line bg-sheet p-3.5 text-ink-900"
    >
      <h2>Practice clock</h2>
      <p class="muted small mt-0.5">
        The practice world, its readers and all that is scheduled go by this clock.
      </p>
      <div class="mt-3 flex items-center gap-2" role="group" aria-label="Rate">
        <span class="w-14">Runs</span>
        <button
          v-for="rate in practiceRates"
          :key="rate"
          class="btn btn-sm"
          :class="live.practice?.rate === rate && 'border-brass-500 bg-brass-100'"
          :aria-pressed="live.practice?.rate === rate"
          @click="live.setClock({ rate })"
        >
          {{ rate }}×
        </button>
      </div>
      <div class="mt-2 flex items-center gap-2" role="group" aria-label="Jump ahead">
        <span class="w-14">Jump</span>
        <button class="btn btn-sm" @click="jump(live.now + HOUR, close)">1 hour</button>
        <button class="btn btn-sm" @click="jump(live.now + 6 * HOUR, close)">6 hours</button>
        <button class="btn btn-sm" @click="jump(live.now + DAY, close)">1 day</button>
      </div>
      <form
        class="mt-2 flex items-center gap-2"
        @submit.prevent="jump(localInputToTime(chosen, session.zone), close)"
      >
        <label for="jump-to" class="w-14">to</label>
        <DateField id="jump-to" v-model="chosen" time bare class="field field-sm !w-40" />
        <button class="btn btn-sm btn-go">Jump</button>
      </form>
      <p v-if="fault" class="fault mt-1.5" role="alert">{{ fault }}</p>
    </PopoverPanel>
  </Popover>
</template>
