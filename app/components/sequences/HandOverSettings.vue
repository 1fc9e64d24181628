<script setup lang="ts">
import { handable, handHows, OF_EVENT, type HandHow, type HandOver } from '~~/core/sequences'

/** Where somebody is handed over to, and which of their values go along under which names. */
const props = defineProps<{ act: HandOver }>()
const emit = defineEmits<{ change: [act: HandOver] }>()
const store = useSequence()
const of = computed(() => store.sequence!)
const { answer: fillIns } = useAnswer<{ path: string; name: string }[]>(() => '/api/fill-ins')
/** What they can come in by carried, as fill-ins name it: `event.basket.sum`. */
const carried = computed(() =>
  (fillIns.value ?? []).flatMap(({ path, name }) => {
    const [what, , property] = path.split('.')
    return what === 'event' && property ? [{ key: `${OF_EVENT}${property}`, name }] : []
  }),
)
const offered = computed(() => [
  ...Object.entries(handable).map(([key, name]) => ({ key, name })),
  ...of.value.fields.map(({ key, name }) => ({ key, name })),
])
const change = (over: Partial<HandOver>) => emit('change', { ...props.act, ...over })
const nameOf = (from: string) =>
  [...offered.value, ...carried.value].find(({ key }) => key === from)?.name ?? from
function add(event: Event) {
  const select = event.target as HTMLSelectElement
  const from = select.value
  const taken = new Set(props.act.fields.map((field) => field.as))
  let as = nameOf(from)
  for (let n = 2; taken.has(as); n++) as = `${nameOf(from)} ${n}`
  change({ fields: [...props.act.fields, { as, from }] })
  select.value = ''
}
const rename = (n: number, as: string) =>
  as.trim() &&
  change({ fields: props.act.fields.map((one, i) => (i === n ? { ...one, as: as.trim() } : one)) })
const value = (event: Event) => (event.target as HTMLSelectElement).value
</script>

<template>
  <label class="grid gap-1"
    ><span class="muted small">Its web address (JSON by POST, signed)</span>
    <KeptInput
      class="field field-sm"
      type="url"
      maxlength="2000"
      placeholder="https://"
      :value="act.url"
      @taken="change({ url: $event.trim() })"
  /></label>
  <select
    class="field field-sm"
    aria-label="What it is to do"
    :value="act.how"
    @change="change({ how: value($event) as HandHow })"
  >
    <option v-for="(words, how) in handHows" :key="how" :value="how">{{ words }}</option>
  </select>
  <p class="muted small">Their address goes along, and:</p>
  <ul v-if="act.fields.length" class="grid gap-1.5">
    <li v-for="(field, n) in act.fields" :key="field.as" class="grid gap-0.5">
      <span class="flex items-center gap-1.5"
        ><KeptInput
          class="field field-sm min-w-0 flex-1"
          :aria-label="`${nameOf(field.from)}, its name there`"
          maxlength="100"
          :value="field.as"
          @taken="rename(n, $event)"
        /><button
          type="button"
          class="btn btn-sm flex-none"
          :aria-label="`Remove: ${field.as}`"
          @click="change({ fields: act.fields.filter((_, i) => i !== n) })"
        >
          Remove
        </button></span
      >
      <span v-if="nameOf(field.from) !== field.as" class="muted small"
        >is {{ nameOf(field.from) }}</span
      >
    </li>
  </ul>
  <select class="field field-sm" aria-label="Another value" value="" @change="add">
    <option value="">another value…</option>
    <option v-for="one in offered" :key="one.key" :value="one.key">{{ one.name }}</option>
    <optgroup v-if="carried.length" label="of the event they came in by">
      <option v-for="one in carried" :key="one.name" :value="one.key">{{ one.name }}</option>
    </optgroup>
  </select>
</template>
