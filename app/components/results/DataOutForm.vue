<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { dataDays, dataKinds, type DataKind } from '~~/core/results'
import { dataOutInput } from '~~/shared/data-out-input'

/** What data to take out of which mailings. */
defineProps<{ mailings: { id: number; name: string }[] }>()
const emit = defineEmits<{ asked: [] }>()
const route = useRoute()
const asked = Number(route.query.mailing)
/** All, one by its number, or several. */
const mailing = ref<number | 'several' | null>(
  Number.isSafeInteger(asked) && asked > 0 ? asked : null,
)
const when = ref<string>('all')
/** How somebody likes their files stays with them. */
const kept = useLocalStorage('data-out', {
  kinds: dataKinds.map(({ key }) => key) as DataKind[],
  unique: true,
  active: true,
  separator: ',',
  quote: '"',
})
const quotes = ['"', "'"]
const { form, faults, busy, submit } = useForm(dataOutInput, {
  ...kept.value,
  mailings: [] as number[],
  days: null as number | null,
  from: null as string | null,
  to: null as string | null,
  every: null as string | null,
  hour: null as number | null,
  mailTo: '',
})
// What is not seen any more is not asked.
watch(when, (now) => {
  if (now !== 'between') form.from = form.to = null
})
watch(
  () => form.every,
  (every) => {
    if (every) return
    form.mailTo = ''
    form.hour = null
  },
)
const unchosen = ref(false)
async function take() {
  if (mailing.value !== 'several') form.mailings = mailing.value === null ? [] : [mailing.value]
  else if (form.mailings.length === 0) return (unchosen.value = true)
  unchosen.value = false
  form.days = /^\d+$/.test(when.value) ? Number(when.value) : null
  const taken = await submit((body) => changeAt('/api/data-out', { method: 'POST', body }))
  if (!taken) return
  const { kinds, unique, active, separator, quote } = form
  kept.value = { kinds, unique, active, separator, quote }
  emit('asked')
}
const id = useId()
</script>

<template>
  <form class="sheet px-4 py-3" @submit.prevent="take">
    <div class="grid grid-cols-[92px_1fr] items-center gap-x-3 gap-y-2">
      <label :for="`${id}-which`">From</label>
      <select :id="`${id}-which`" v-model="mailing" class="field field-sm">
        <option :value="null">all mailings</option>
        <option v-if="mailings.length > 1" value="several">several, chosen here</option>
        <option v-for="one in mailings" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
      <template v-if="mailing === 'several'">
        <span class="self-start pt-1">Which</span>
        <div
          class="max-h-40 overflow-auto rounded border border-line px-2 py-1"
          role="group"
          aria-label="Which mailings"
        >
          <label v-for="one in mailings" :key="one.id" class="flex min-h-6 items-baseline gap-2"
            ><input v-model="form.mailings" type="checkbox" :value="one.id" />{{ one.name }}</label
          >
        </div>
      </template>
      <label :for="`${id}-when`">Time</label>
      <select :id="`${id}-when`" v-model="when" class="field field-sm">
        <option value="all">since the beginning</option>
        <option v-for="n in dataDays" :key="n" :value="String(n)">
          {{ n === 1 ? 'the last day' : `the last ${n} days` }}
        </option>
        <option value="between">between two days</option>
      </select>
      <template v-if="when === 'between'">
        <label :for="`${id}-from`">First day</label>
        <DateField :id="`${id}-from`" v-model="form.from" class="field field-sm" />
        <label :for="`${id}-to`">Last day</label>
        <DateField :id="`${id}-to`" v-model="form.to" class="field field-sm" />
      </template>
    </div>
    <fieldset class="mt-3 border-t border-line-soft pt-2">
      <legend class="sr-only">What</legend>
      <label
        v-for="kind in dataKinds"
        :key="kind.key"
        class="flex min-h-6 items-baseline gap-2 py-0.5"
        ><input v-model="form.kinds" type="checkbox" :value="kind.key" /><span
          ><b class="font-[560]">{{ kind.name }}</b>
          <span class="muted small">{{ kind.about }}</span></span
        ></label
      >
    </fieldset>
    <div
      class="mt-2 grid grid-cols-[92px_1fr] items-center gap-x-3 gap-y-2 border-t border-line-soft pt-3"
    >
      <label :for="`${id}-unique`">Opens, clicks</label>
      <select :id="`${id}-unique`" v-model="form.unique" class="field field-sm">
        <option :value="true">only each person’s first</option>
        <option :value="false">all, bots’ too</option>
      </select>
      <label :for="`${id}-active`">People</label>
      <select :id="`${id}-active`" v-model="form.active" class="field field-sm">
        <option :value="true">who opened, clicked or left then</option>
        <option :value="false">everybody on file</option>
      </select>
      <label :for="`${id}-separator`">Separator</label>
      <div class="flex items-center gap-2">
        <select :id="`${id}-separator`" v-model="form.separator" class="field field-sm">
          <option value=",">comma</option>
          <option value=";">semicolon</option>
          <option :value="'\t'">tab</option>
        </select>
        <label :for="`${id}-quote`">Quote</label>
        <select :id="`${id}-quote`" v-model="form.quote" class="field field-sm">
          <option v-for="one in quotes" :key="one" :value="one">{{ one }}</option>
        </select>
      </div>
      <label :for="`${id}-every`">How often</label>
      <select :id="`${id}-every`" v-model="form.every" class="field field-sm">
        <option :value="null">once, now</option>
        <option value="day">every day from now on</option>
        <option value="week">every week from now on</option>
        <option value="month">every month from now on</option>
      </select>
      <template v-if="form.every">
        <label :for="`${id}-hour`">At</label>
        <select :id="`${id}-hour`" v-model="form.hour" class="field field-sm">
          <option :value="null">the hour it is now</option>
          <option v-for="hour in 24" :key="hour" :value="hour - 1">
            {{ String(hour - 1).padStart(2, '0') }}:00
          </option>
        </select>
        <label :for="`${id}-mail`">Link by mail</label>
        <input
          :id="`${id}-mail`"
          v-model="form.mailTo"
          type="email"
          class="field field-sm"
          placeholder="to nobody; it stands here"
        />
      </template>
    </div>
    <p v-if="unchosen" class="fault small mt-2" role="alert">Choose at least one mailing.</p>
    <p v-if="Object.keys(faults).length" class="fault small mt-2" role="alert">
      {{ [...new Set(Object.values(faults))].join(' ') }}
    </p>
    <button class="btn btn-go mt-3 w-full justify-center" :disabled="busy">
      {{ form.every ? 'Set the schedule' : 'Export' }}
    </button>
  </form>
</template>
