<script setup lang="ts">
import type { Limits, Pace, ProviderPace } from '~~/core/dispatch'

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
    value: 'local-time',
    name: 'Everybody at the same time on their own clock',
    about: 'as their time zone says; the account’s where it is not known',
  },
  {
    value: 'widening',
    name: 'The keenest first',
    about: 'then tier after tier, each only when the one before went well',
  },
]
/** It is drawn only once the plan is known. */
const plan = computed(() => props.plan.plan.value!)
const fields = computed(() => props.plan.answer.value?.zoneFields ?? [])
const others = computed(() =>
  (props.plan.answer.value?.domains ?? []).filter(
    (domain) => !plan.value.providers.some((one) => one.domain === domain),
  ),
)
const setProviders = (providers: ProviderPace[]) => props.plan.change({ providers })
function choose(pace: Pace) {
  const zoneField = pace === 'local-time' ? (fields.value[0]?.key ?? null) : plan.value.zoneField
  props.plan.change({ pace, zoneField })
}
const limits = [
  ['bounced', '0.1'],
  ['complained', '0.01'],
  ['deferred', '1'],
] as const
function setLimit(key: keyof Limits, percent: number) {
  if (percent > 0) props.plan.change({ limits: { ...plan.value.limits, [key]: percent / 100 } })
}
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
          @change="choose(pace.value)"
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
          />minutes</span
        >
        <span class="self-start pt-1">Stops by itself over</span>
        <span class="flex flex-wrap items-center gap-x-4 gap-y-1.5">
          <label
            v-for="[key, step] in limits"
            :key="key"
            class="flex items-center gap-1.5 whitespace-nowrap"
            ><KeptInput
              type="number"
              min="0.01"
              max="90"
              :step="step"
              class="field field-sm w-20"
              :aria-label="`Limit: ${key}, per cent`"
              :value="Number((plan.limits[key] * 100).toFixed(3))"
              @taken="setLimit(key, Number($event))"
            />% {{ key }}</label
          >
          <span class="muted small basis-full"
            >when that is more than chance: a few among the first stop nothing</span
          >
        </span>
      </template>
      <template v-if="plan.pace === 'local-time'">
        <label :for="`${id}-zone`">Time zones stand in</label>
        <span class="flex items-center gap-2"
          ><select
            :id="`${id}-zone`"
            class="field field-sm w-48"
            :value="plan.zoneField ?? ''"
            @change="
              props.plan.change({ zoneField: ($event.target as HTMLSelectElement).value || null })
            "
          >
            <option value="">choose a field</option>
            <option v-for="field in fields" :key="field.key" :value="field.key">
              {{ field.name }} · {{ people(field.people) }}
            </option>
          </select>
          <span class="muted small">{{
            fields.length
              ? 'names like Europe/Paris'
              : 'there is no field for it yet: add one called “Time zone”'
          }}</span></span
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
      <span class="self-start pt-1">Single providers</span>
      <span class="grid gap-1.5">
        <span v-for="(one, at) in plan.providers" :key="one.domain" class="flex items-center gap-2"
          ><span class="w-44 truncate">{{ one.domain }}</span
          >at most<KeptInput
            type="number"
            min="1"
            class="field field-sm w-24"
            :aria-label="`A minute to ${one.domain}`"
            :value="one.perMinute"
            @taken="
              setProviders(
                plan.providers.map((other, i) =>
                  i === at ? { ...other, perMinute: Math.max(1, Number($event) || 1) } : other,
                ),
              )
            "
          />a minute
          <button
            class="link small"
            :aria-label="`No pace of its own for ${one.domain}`"
            @click="setProviders(plan.providers.filter((_, i) => i !== at))"
          >
            remove
          </button></span
        >
        <select
          class="field field-sm w-60"
          aria-label="Spare a provider"
          value=""
          @change="
            setProviders([
              ...plan.providers,
              { domain: ($event.target as HTMLSelectElement).value, perMinute: 60 },
            ])
          "
        >
          <option value="">
            {{ plan.providers.length ? 'one more…' : 'none has a pace of its own' }}
          </option>
          <option v-for="domain in others" :key="domain" :value="domain">{{ domain }}</option>
        </select>
      </span>
    </div>
  </section>
</template>
