<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import type { Handler } from '~~/core/team'

/** What else is done with a thing as a whole, as far as its state (`offered`) and one's role allow. */
export interface MoreAct {
  name: string
  handler: Handler
  offered: boolean
  run: () => void
}
const props = defineProps<{ acts: MoreAct[]; disabled?: boolean }>()
const session = useSession()
const shown = computed(() =>
  props.acts.filter(({ handler, offered }) => offered && session.may(handler)),
)
</script>

<template>
  <Menu v-if="shown.length" as="div" class="relative">
    <MenuButton class="btn btn-sm" :disabled="disabled">More</MenuButton>
    <MenuItems
      class="floats absolute right-0 z-30 mt-1 w-[210px] rounded-md border border-line bg-sheet p-1.5 focus:outline-none"
    >
      <MenuItem v-for="one in shown" :key="one.name" v-slot="{ active }">
        <button
          class="block min-h-7 w-full rounded px-2 py-1 text-left"
          :class="active && 'bg-brass-100'"
          @click="one.run()"
        >
          {{ one.name }}
        </button>
      </MenuItem>
    </MenuItems>
  </Menu>
</template>
