<script setup lang="ts">
import { MOST_PICKS, type Picks } from '~~/core/letters'
import { pickWays, type PickWay } from '~~/core/picks'

/** By what products are picked for each reader, and which may be. */
defineProps<{ block: Picks }>()
const store = useMailing()
const { answer: categories } = useAnswer<string[]>(() => '/api/products/categories', {
  live: false,
})
const given = (event: Event) => (event.target as HTMLInputElement).value
const id = useId()
</script>

<template>
  <label :for="`${id}-by`">Picked by</label>
  <select
    :id="`${id}-by`"
    class="field field-sm"
    :value="block.by"
    @change="store.update(block.id, { by: given($event) as PickWay })"
  >
    <option v-for="way in pickWays" :key="way.key" :value="way.key">{{ way.name }}</option>
  </select>
  <label :for="`${id}-many`">How many</label>
  <select
    :id="`${id}-many`"
    class="field field-sm"
    :value="block.many"
    @change="store.update(block.id, { many: Number(given($event)) })"
  >
    <option v-for="n in MOST_PICKS" :key="n" :value="n">{{ n }}</option>
  </select>
  <label :for="`${id}-category`">Only of</label>
  <select
    :id="`${id}-category`"
    class="field field-sm"
    :value="block.category"
    @change="store.update(block.id, { category: given($event) })"
  >
    <option value="">all categories</option>
    <option v-for="one in categories ?? []" :key="one" :value="one">{{ one }}</option>
  </select>
  <label :for="`${id}-price`">Up to</label>
  <KeptInput
    :id="`${id}-price`"
    type="number"
    min="0"
    class="field field-sm"
    placeholder="any price"
    :value="block.upTo === null ? '' : block.upTo / 100"
    @taken="
      store.update(block.id, { upTo: $event === '' ? null : Math.round(Number($event) * 100) })
    "
  />
  <label :for="`${id}-stock`">In stock</label>
  <label class="flex items-center gap-2"
    ><input
      :id="`${id}-stock`"
      type="checkbox"
      :checked="block.inStock"
      @change="store.update(block.id, { inStock: ($event.target as HTMLInputElement).checked })"
    />only</label
  >
  <label :for="`${id}-label`">The link says</label>
  <input
    :id="`${id}-label`"
    class="field field-sm"
    :value="block.label"
    maxlength="200"
    @input="store.update(block.id, { label: given($event) })"
  />
  <p class="muted col-span-2">
    Others for each reader: step through them above the paper to see whose is what. Never what
    somebody has bought. Where too little is known of a reader, what sells best fills up.
  </p>
</template>
