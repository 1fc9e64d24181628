<script setup lang="ts">
import { fontStacks, type Letterhead } from '~~/core/letters'
import type { NamedLetterhead } from '~~/server/utils/letterhead'

/** The letterheads: how letters look, tried out before it is kept. The first is the account's own. */
const session = useSession()
const stamps = useStamps()
const route = useRoute()
const others = ref<NamedLetterhead[]>([])
const id = computed(() => Number(route.query.id) || null)
const here = computed(() => others.value.find((one) => one.id === id.value) ?? null)
/** As it is kept. */
const kept = computed<Letterhead>(() => here.value?.look ?? session.account!.letterhead)
const look = reactive<Letterhead>({ ...kept.value })
const name = ref('')
const sample = ref('')
const busy = ref(false)
const changed = computed(
  () =>
    JSON.stringify(look) !== JSON.stringify(kept.value) ||
    (here.value !== null && name.value !== here.value.name),
)
watch(
  kept,
  (next) => {
    Object.assign(look, next)
    name.value = here.value?.name ?? ''
  },
  { immediate: true },
)
async function load() {
  const got = await request<{ others: NamedLetterhead[] }>('/api/letterhead').catch(() => null)
  if (got) others.value = got.others
}
onMounted(() => Promise.all([load(), stamps.load()]))
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
async function keep(letterhead: Letterhead, called: string, words: string) {
  const before = { look: { ...kept.value }, name: here.value?.name ?? '' }
  busy.value = true
  const at = id.value
  const done = at
    ? await ask(`/api/letterhead/${at}`, {
        method: 'PUT',
        body: { name: called, look: letterhead },
      })
    : await ask('/api/letterhead', { method: 'PUT', body: letterhead })
  busy.value = false
  if (!done) return
  await Promise.all([session.load(), load()])
  useNotices().say(words, {
    label: 'Undo',
    run: () => void keep(before.look, before.name, 'The letterhead is as it was.'),
  })
}
async function another() {
  const made = await ask<{ id: number }>('/api/letterhead', {
    method: 'POST',
    body: { name: `Letterhead ${others.value.length + 2}`, look: { ...look } },
  })
  if (!made) return
  await load()
  await navigateTo({ query: { id: made.id } })
}
async function takeAway() {
  const gone = here.value
  if (!gone || !(await ask(`/api/letterhead/${gone.id}`, { method: 'DELETE' }))) return
  await navigateTo({ query: {} })
  await load()
  useNotices().say(`“${gone.name}” is gone. Its letters are in the usual one.`, {
    label: 'Undo',
    run: () => void ask(`/api/letterhead/${gone.id}/restore`, { method: 'POST' }).then(load),
  })
}
const frames = [
  ['head', 'Above every letter'],
  ['foot', 'Under every letter'],
] as const
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
      @submit.prevent="
        keep({ ...look }, name, 'Kept. Every letter in it that has not gone out follows.')
      "
    >
      <p class="small"><NuxtLink to="/settings" class="link">Settings</NuxtLink></p>
      <h1>Letterhead</h1>
      <p class="muted mt-1">
        How all letters look, unless a letter, a row or a block says otherwise.
      </p>
      <nav class="mt-3 flex flex-wrap gap-1.5" aria-label="Letterheads">
        <NuxtLink
          v-for="one in [{ id: null, name: 'The usual one' }, ...others]"
          :key="one.id ?? 0"
          :to="{ query: one.id ? { id: one.id } : {} }"
          class="min-h-7 rounded border border-line px-2.5 py-0.5"
          :class="id === one.id ? 'bg-canvas-200 font-semibold' : 'bg-sheet hover:bg-canvas-50'"
          :aria-current="id === one.id ? 'true' : undefined"
          >{{ one.name }}</NuxtLink><button type="button" class="link px-1.5" @click="another">
          Another…
        </button>
      </nav>
      <div class="mt-4 grid grid-cols-[140px_1fr] items-center gap-x-3 gap-y-2.5">
        <template v-if="here">
          <label for="letterhead-name">Name</label>
          <input id="letterhead-name" v-model="name" class="field field-sm" maxlength="100" />
        </template>
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
        <template v-for="[key, words] in colors" :key="key">
          <label :for="key">{{ words }}</label>
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
        <template v-for="[key, words, least, most] in numbers" :key="key">
          <label :for="key">{{ words }}</label>
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
      <div class="mt-2.5 grid grid-cols-[140px_1fr] items-center gap-x-3 gap-y-2.5">
        <template v-for="[key, words] in frames" :key="key">
          <label :for="`stamp-${key}`">{{ words }}</label>
          <select :id="`stamp-${key}`" v-model="look[key]" class="field field-sm">
            <option :value="null">no stamp</option>
            <option v-for="stamp in stamps.stamps" :key="stamp.id" :value="stamp.id">
              {{ stamp.name }}
            </option>
          </select>
        </template>
      </div>
      <div class="mt-5 flex gap-2">
        <button class="btn btn-go" :disabled="busy || !changed">Keep it</button>
        <button
          type="button"
          class="btn"
          :disabled="!changed"
          @click="(Object.assign(look, kept), (name = here?.name ?? ''))"
        >
          As it was
        </button>
        <button v-if="here" type="button" class="btn ml-auto" @click="takeAway">Take away</button>
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
