<script setup lang="ts">
import { fontStacks, type Letterhead } from '~~/core/letters'

/** The letterhead: how all letters look, tried out before it is kept. */
const session = useSession()
const look = reactive<Letterhead>({ ...session.account!.letterhead })
const sample = ref('')
const busy = ref(false)
const changed = computed(() => JSON.stringify(look) !== JSON.stringify(session.account!.letterhead))
let latest = 0
async function draw() {
  const mine = ++latest
  const got = await request<{ html: string }>('/api/letterhead/sample', {
    method: 'POST',
    body: { ...look },
  }).catch(() => null)
  if (got && mine === latest) sample.value = got.html
}
watch(look, draw, { immediate: true })
async function keep(letterhead: Letterhead, words: string) {
  const before = { ...session.account!.letterhead }
  busy.value = true
  const kept = await ask<Letterhead>('/api/letterhead', { method: 'PUT', body: letterhead })
  busy.value = false
  if (!kept) return
  await session.load()
  Object.assign(look, kept)
  useNotices().say(words, {
    label: 'Undo',
    run: () => void keep(before, 'The letterhead is as it was.'),
  })
}
const colors = [
  ['ink', 'Ink'],
  ['accent', 'Links and buttons'],
  ['paper', 'Paper'],
  ['ground', 'Around the paper'],
] as const
const numbers = [
  ['size', 'Size of text', 10, 28],
  ['corner', 'Corners of buttons', 0, 40],
  ['width', 'Width of the paper', 480, 720],
] as const
</script>

<template>
  <div class="grid h-full grid-cols-[360px_1fr]">
    <form
      class="min-h-0 overflow-auto border-r border-line bg-sheet px-6 py-5"
      @submit.prevent="keep({ ...look }, 'Kept. Every letter that has not gone out follows.')"
    >
      <p class="small"><NuxtLink to="/settings" class="link">Settings</NuxtLink></p>
      <h1>Letterhead</h1>
      <p class="muted mt-1">
        How all letters look, unless a letter, a row or a block says otherwise.
      </p>
      <div class="mt-4 grid grid-cols-[140px_1fr] items-center gap-x-3 gap-y-2.5">
        <span>Logo</span>
        <div>
          <PictureSlot :src="look.logo" alt="The logo" @taken="look.logo = $event" />
          <button v-if="look.logo" type="button" class="link small" @click="look.logo = ''">
            Take it away
          </button>
        </div>
        <template v-if="look.logo">
          <label for="logo-width">Its width</label>
          <span class="flex items-center gap-2"
            ><input
              id="logo-width"
              v-model.number="look.logoWidth"
              type="number"
              min="40"
              max="600"
              class="field field-sm w-24"
            />px</span
          >
          <label for="logo-align">It stands</label>
          <select id="logo-align" v-model="look.logoAlign" class="field field-sm">
            <option value="left">left</option>
            <option value="center">in the middle</option>
            <option value="right">right</option>
          </select>
        </template>
        <template v-for="[key, name] in colors" :key="key">
          <label :for="key">{{ name }}</label>
          <span class="flex items-center gap-2"
            ><input
              :id="key"
              v-model="look[key]"
              type="color"
              class="h-7 w-12 rounded border border-line bg-sheet"
            /><span class="muted">{{ look[key] }}</span></span
          >
        </template>
        <label for="heading-font">Headings</label>
        <select id="heading-font" v-model="look.headingFont" class="field field-sm">
          <option v-for="font in fontStacks" :key="font.name" :value="font.stack">
            {{ font.name }}
          </option>
        </select>
        <label for="text-font">Text</label>
        <select id="text-font" v-model="look.textFont" class="field field-sm">
          <option v-for="font in fontStacks" :key="font.name" :value="font.stack">
            {{ font.name }}
          </option>
        </select>
        <template v-for="[key, name, least, most] in numbers" :key="key">
          <label :for="key">{{ name }}</label>
          <span class="flex items-center gap-2"
            ><input
              :id="key"
              v-model.number="look[key]"
              type="number"
              :min="least"
              :max="most"
              class="field field-sm w-24"
            />px</span
          >
        </template>
      </div>
      <div class="mt-5 flex gap-2">
        <button class="btn btn-go" :disabled="busy || !changed">Keep it</button>
        <button
          type="button"
          class="btn"
          :disabled="!changed"
          @click="Object.assign(look, session.account!.letterhead)"
        >
          As it was
        </button>
      </div>
    </form>
    <div class="min-h-0 overflow-hidden bg-[#eceee7] p-6">
      <iframe
        v-if="sample"
        :srcdoc="sample"
        sandbox=""
        title="A letter in this letterhead"
        class="h-full w-full border border-line bg-sheet"
      />
    </div>
  </div>
</template>
