<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import { stepKinds, type Step } from '~~/core/sequences'

/** A step is put in on a way of the map. */
defineProps<{
  where: string
  /** What a step is called that is picked up; null: none is. */ held: string | null
}>()
const emit = defineEmits<{ add: [kind: Step['kind']]; put: [] }>()
const about: Record<Step['kind'], string> = {
  mail: 'a letter of its own',
  wait: 'a time, a day, or until they do something',
  fork: 'ways by what they did, or are',
  split: 'ways by lot, to see which does better',
  do: 'tag, set a field, start another',
  goal: 'what it is for; who reaches it is out',
}
const kinds = Object.entries(stepKinds) as [Step['kind'], { name: string }][]
</script>

<template>
  <Menu as="span" class="relative inline-block">
    <MenuButton
      class="flex h-[26px] w-[26px] items-center justify-center rounded-full border border-line bg-sheet text-[15px] leading-none text-ink-700 hover:border-ink-300"
      :aria-label="`Add after ${where}`"
      :title="`Add after ${where}`"
      >+</MenuButton
    >
    <MenuItems
      class="floats absolute top-7 left-0 z-30 w-[290px] rounded-md border border-line bg-sheet p-1.5 focus:outline-none"
    >
      <MenuItem v-if="held" v-slot="{ active }">
        <button
          class="mb-1 block min-h-7 w-full truncate rounded border-b border-line-soft px-2 py-1 text-left font-semibold"
          :class="active && 'bg-brass-100'"
          @click="emit('put')"
        >
          Put here: {{ held }}
        </button>
      </MenuItem>
      <MenuItem v-for="[kind, { name }] in kinds" :key="kind" v-slot="{ active }">
        <button
          class="block min-h-7 w-full rounded px-2 py-1 text-left"
          :class="active && 'bg-brass-100'"
          @click="emit('add', kind)"
        >
          {{ name }} <span class="muted small">{{ about[kind] }}</span>
        </button>
      </MenuItem>
    </MenuItems>
  </Menu>
</template>
