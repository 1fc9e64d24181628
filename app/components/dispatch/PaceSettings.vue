<script setup lang="ts">
import type { Pace } from '~~/core/dispatch'

/** In which order and how fast it goes out. */
const props = defineProps<{ plan: Plan }>()
const store = useMailing()
const paces: { value: Pace; name: string; about: string }[] = [
  { value: 'at-once', name: 'Everybody at once', about: 'in the order of the list' },
  {
    value: 'best-hour',
    name: 'Each at their best hour',
    about: 'within a day, when they have read most so far; new people when most others do',
  },
  {
    value: 'widening',
    name: 'The keenest first',
    about: 'then tier after tier, each only when the one before went well',
  },
]
const plan = computed(() => props.plan.plan.value)
const id = useId()
</script>

<template>
  <section class="sheet mt-4 p-4" :aria-labelledby="`${id}-title`">
    <h2 :id="`${id}-title`">Pace</h2>
    <fieldset class="mt-2 grid gap-1.5">
      <legend class="sr-only">Order</legend>
      <label v-for="pace in paces" :key="pace.value" class="flex items-baseline gap-2"
        ><input
          type="radio"
          class="translate-y-0.5"
          :name="`${id}-pace`"
          :checked="plan.pace === pace.value"
          @change="props.plan.change({ pace: pace.value })"
        /><span
          >{{ pace.name }} <span class="muted small">{{ pace.about }}</span></span
        ></label
      >
    </fieldset>
    <div class="mt-3 grid grid-cols-[130px_1fr] items-center gap-x-4 gap-y-2.5">
      <template v-if="plan.pace === 'widening'">
        <label :for="`${id}-watch`">Watch each for</label>
        <span class="flex items-center gap-2"
          ><KeptInput
            :id="`${id}-watch`"
            type="number"
            min="1"
            max="10080"
            class="field field-sm w-24"
            :value="plan.watchMinutes"
            @taken="props.plan.change({ watchMinutes: Number($event) || 60 })"
          />minutes
          <span class="muted small"
            >It stops by itself over 2% bounces, 0.1% complaints or 10% put off.</span
          ></span
        >
      </template>
      <label :for="`${id}-rate`">At most</label>
      <span class="flex items-center gap-2"
        ><KeptInput
          :id="`${id}-rate`"
          type="number"
          min="1"
          class="field field-sm w-24"
          :placeholder="store.mailing?.pace ? String(store.mailing.pace) : 'any'"
          :value="plan.perMinute ?? ''"
          @taken="props.plan.change({ perMinute: $event === '' ? null : Number($event) || null })"
        />a minute
        <span class="muted small">{{
          store.mailing?.pace
            ? `the account sends at most ${count(store.mailing.pace)}`
            : 'else as fast as the mail server takes them'
        }}</span></span
      >
    </div>
  </section>
</template>
