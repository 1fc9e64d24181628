<script setup lang="ts">
import { Menu, MenuButton, MenuItem, MenuItems } from '@headlessui/vue'

const session = useSession()
const live = useLive()
const shell = useShell()
const route = useRoute()
const waits = useWaiting()
const isHere = (path: string) => (path === '/' ? route.path === '/' : route.path.startsWith(path))
</script>

<template>
  <header
    class="relative flex h-[46px] flex-none items-center gap-3 whitespace-nowrap xl:gap-6 print:hidden bg-canvas-900 px-[18px] text-[#f2f4ea]"
  >
    <NuxtLink to="/" class="flex items-center gap-2 font-head text-[17px] font-[680]"
      ><img src="/satchel.svg" width="22" height="22" alt="" />Satchel</NuxtLink
    >
    <nav class="flex h-full gap-0.5" aria-label="Areas">
      <NuxtLink
        v-for="area in areas"
        :key="area.path"
        :to="area.path"
        class="relative flex items-center px-2 font-[520] xl:px-3"
        :class="
          isHere(area.path)
            ? 'text-white after:absolute after:inset-x-2 xl:after:inset-x-3 after:bottom-[7px] after:border-b-2 after:border-dashed after:border-brass-300'
            : 'text-[#cfd6bd] hover:text-white'
        "
        :aria-current="isHere(area.path) ? 'page' : undefined"
        >{{ area.name }}</NuxtLink
      >
    </nav>
    <div
      v-if="waits"
      class="waits absolute inset-x-0 bottom-0"
      role="progressbar"
      aria-label="Waiting for an answer"
    />
    <div class="ml-auto flex items-center gap-3">
      <span v-if="!live.connected" class="small text-brass-300" role="status">Connecting…</span>
      <ClockMenu v-if="live.practice" />
      <button
        class="h-6 rounded border border-canvas-600 px-1.5 text-[11.5px] text-[#dfe4d2]"
        title="Find or do anything"
        @click="shell.palette = true"
      >
        Ctrl K<span class="sr-only">, find or do anything</span>
      </button>
      <Menu as="div" class="relative">
        <MenuButton class="h-7 max-w-40 truncate rounded px-1">{{
          session.account?.name
        }}</MenuButton>
        <MenuItems
          class="floats absolute right-0 z-40 mt-1 w-56 whitespace-normal rounded-md border border-line bg-sheet py-1 text-ink-900"
        >
          <div class="small muted px-3 py-1">{{ session.user?.name }}</div>
          <MenuItem v-slot="{ active }"
            ><NuxtLink to="/settings" class="block px-3 py-1.5" :class="active && 'bg-canvas-50'"
              >Settings</NuxtLink
            ></MenuItem
          >
          <MenuItem v-slot="{ active }"
            ><button
              class="block w-full px-3 py-1.5 text-left"
              :class="active && 'bg-canvas-50'"
              @click="shell.keys = true"
            >
              Keys
            </button></MenuItem
          >
          <MenuItem v-slot="{ active }"
            ><button
              class="block w-full px-3 py-1.5 text-left"
              :class="active && 'bg-canvas-50'"
              @click="session.signOut()"
            >
              Sign out
            </button></MenuItem
          >
        </MenuItems>
      </Menu>
    </div>
  </header>
  <div
    v-if="!session.sends"
    class="flex-none border-b border-brass-300 bg-brass-100 px-[18px] py-1.5 text-[12.5px]"
    role="status"
  >
    No mail server is set, so Satchel sends nothing. Start it with <code>SATCHEL_SMTP_URL</code>;
    see the operators’ notes.
  </div>
</template>
