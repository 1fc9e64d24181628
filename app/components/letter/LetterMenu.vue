<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'

/** What is done with the letter as a whole. */
const store = useMailing()
const dialog = ref<'template' | 'keep' | 'plan' | null>(null)
async function keep(as: { name: string; about: string }) {
  await store.flush()
  const kept = await act('/api/templates', 'POST', { mailingId: store.mailing!.id, ...as })
  if (!kept) return false
  useNotices().say(`Kept. “${as.name}” stands under “Write a letter” now.`)
  return true
}
</script>

<template>
  <Menu as="div" class="relative">
    <MenuButton class="btn btn-sm">Letter</MenuButton>
    <MenuItems
      class="floats absolute right-0 z-30 mt-1 w-[230px] rounded-md border border-line bg-sheet p-1.5 focus:outline-none"
    >
      <MenuItem v-if="store.canChange" v-slot="{ active }">
        <button class="menu-item" :class="active && 'bg-brass-100'" @click="dialog = 'plan'">
          A plan to write by…
        </button>
      </MenuItem>
      <MenuItem v-if="store.canChange" v-slot="{ active }">
        <button
          class="menu-item"
          :class="active && 'bg-brass-100'"
          @click="store.tightening = !store.tightening"
        >
          Tighten
        </button>
      </MenuItem>
      <MenuItem v-if="store.canChange" v-slot="{ active }">
        <button class="menu-item" :class="active && 'bg-brass-100'" @click="dialog = 'template'">
          Another template…
        </button>
      </MenuItem>
      <MenuItem v-slot="{ active }">
        <button class="menu-item" :class="active && 'bg-brass-100'" @click="dialog = 'keep'">
          Keep as a template…
        </button>
      </MenuItem>
    </MenuItems>
  </Menu>
  <TemplateDialog v-if="dialog === 'template'" @close="dialog = null" />
  <PlanDialog v-if="dialog === 'plan'" @close="dialog = null" />
  <KeepTemplateDialog
    v-if="dialog === 'keep'"
    :name="store.mailing!.name"
    about="The letter as it is now, with its look. What you change in this mailing afterwards does not change the template."
    :keep="keep"
    @close="dialog = null"
  />
</template>

<style scoped>
@reference '~/assets/main.css';
.menu-item {
  @apply block min-h-7 w-full rounded px-2 py-1 text-left;
}
</style>
