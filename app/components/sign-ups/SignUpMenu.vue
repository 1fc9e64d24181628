<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'
import type { Handler } from '~~/core/team'

/** What is done with a sign-up as a whole, as far as its state and one's role allow. */
const props = defineProps<{
  state: string
  /** What the draft can be tested against, in words; empty: it can’t be now. */
  test: string
  versions: boolean
}>()
const emit = defineEmits<{
  versions: []
  test: []
  copy: []
  pause: []
  resume: []
  end: []
  remove: []
}>()
const session = useSession()
interface Act {
  name: string
  handler: Handler
  offered: boolean
  run: () => void
}
const acts = computed(() => {
  const stands = props.state === 'live' || props.state === 'paused'
  const all: Act[] = [
    {
      name: props.test,
      handler: 'POST /api/sign-ups/[id]/publish',
      offered: props.test !== '',
      run: () => emit('test'),
    },
    {
      name: 'Versions…',
      handler: 'GET /api/sign-ups/[id]/versions/[version]',
      offered: props.versions,
      run: () => emit('versions'),
    },
    {
      name: 'Pause',
      handler: 'POST /api/sign-ups/[id]/pause',
      offered: props.state === 'live',
      run: () => emit('pause'),
    },
    {
      name: 'Go on',
      handler: 'POST /api/sign-ups/[id]/resume',
      offered: props.state === 'paused',
      run: () => emit('resume'),
    },
    {
      name: 'Make a copy',
      handler: 'POST /api/sign-ups/[id]/copy',
      offered: true,
      run: () => emit('copy'),
    },
    {
      name: 'End…',
      handler: 'POST /api/sign-ups/[id]/end',
      offered: stands,
      run: () => emit('end'),
    },
    {
      name: 'Delete',
      handler: 'DELETE /api/sign-ups/[id]',
      offered: true,
      run: () => emit('remove'),
    },
  ]
  return all.filter(({ handler, offered }) => offered && session.may(handler))
})
</script>

<template>
  <Menu v-if="acts.length" as="div" class="relative">
    <MenuButton class="btn btn-sm">More</MenuButton>
    <MenuItems
      class="floats absolute right-0 z-30 mt-1 w-[210px] rounded-md border border-line bg-sheet p-1.5 focus:outline-none"
    >
      <MenuItem v-for="one in acts" :key="one.name" v-slot="{ active }">
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
