<script setup lang="ts">
import { safeLink, type Social } from '~~/core/letters'

/** The links of a social block, each with its name. */
const props = defineProps<{ block: Social }>()
const store = useMailing()
// Written out in the template, its slashes would be taken for a comment by the checking of types.
const scheme = 'https://'
function set(at: number, change: { name?: string; href?: string } | null) {
  const links = [...props.block.links]
  if (change === null) links.splice(at, 1)
  else links[at] = { name: '', href: '', ...links[at], ...change }
  store.update(props.block.id, { links })
}
const given = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <div class="col-span-2 space-y-1.5">
    <div v-for="(link, i) in block.links" :key="i" class="flex gap-1.5">
      <input
        class="field field-sm w-24"
        :value="link.name"
        placeholder="Name"
        :aria-label="`Name ${i + 1}`"
        @input="set(i, { name: given($event) })"
      />
      <KeptInput
        class="field field-sm min-w-0 flex-1"
        :value="link.href"
        :placeholder="scheme"
        :aria-label="`Link ${i + 1}`"
        @taken="set(i, { href: safeLink($event) })"
      />
      <button class="px-1" :aria-label="`Remove link ${i + 1}`" @click="set(i, null)">×</button>
    </div>
    <button class="btn btn-sm" @click="set(block.links.length, {})">One more</button>
  </div>
</template>
