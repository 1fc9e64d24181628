<script setup lang="ts">
import { isAlike } from '~~/core/choices'
import {
  characters,
  fontStacks,
  groundColor,
  grounds,
  inheritedStyle,
  type Character,
  type Ground,
  type Letterhead,
} from '~~/core/letters'
import type { NamedLetterhead } from '~~/core/letters'

/** The letterheads: how letters look, tried out before it is kept. The first is the account's own. */
const session = useSession()
const stamps = useStamps()
const route = useRoute()
const others = ref<NamedLetterhead[]>([])
const id = computed(() => Number(route.query.id) || null)
const here = computed(() => others.value.find((one) => one.id === id.value) ?? null)
type Kept = { name: string } & Letterhead
interface Answer {
  own: Letterhead
  ownVersion: string
  others: NamedLetterhead[]
}
/** What one of them is, as the server has it: 0 is the account's own. */
function valueIn(answer: Answer, of: number) {
  const one = answer.others.find((other) => other.id === of)
  return of === 0
    ? { value: { name: '', ...answer.own }, version: answer.ownVersion }
    : one && { value: { name: one.name, ...one.look }, version: one.version }
}
/** A letterhead is kept by this; one for each. It is saved when its editor says so. */
function keeperFor(of: number): Keeper<Kept> {
  const path = of === 0 ? '/api/letterhead' : `/api/letterhead/${of}`
  return keeperOf<Kept>(path, () => ({
    of: path,
    manual: true,
    names: {
      name: 'Name',
      logo: 'Logo',
      second: 'Second colour',
      ...Object.fromEntries([...colors, ...numbers, ...frames].map(([key, words]) => [key, words])),
      headingFont: 'Headings',
      textFont: 'Text',
    },
    async load() {
      const found = valueIn(await request<Answer>('/api/letterhead'), of)
      if (!found) throw new Error('This letterhead is not there any more.')
      return found
    },
    async save({ name, ...look }, version) {
      const body = of === 0 ? { look, version } : { name, look, version }
      const done = await changeAt<{ look: Letterhead; version: string }>(path, {
        method: 'PUT',
        body,
      })
      return { value: { name, ...done.look }, version: done.version }
    },
  }))
}
const frames = [
  ['head', 'Above every letter'],
  ['foot', 'Under every letter'],
] as const
const colors = [
  ['ink', 'Text colour'],
  ['accent', 'Links and buttons'],
  ['paper', 'Paper'],
  ['ground', 'Around the paper'],
] as const
/** A ground of the letterhead as it is set now, with what is written on it. */
const groundLook = (ground: Ground) => ({
  background: groundColor(look, ground),
  color: inheritedStyle(look, undefined, { ground }).ink,
})
/** What a character says is set; logo, width and what stands above and below stay. */
const take = ({ look: of }: Character) => Object.assign(look, of)
const numbers = [
  ['size', 'Size of text', 10, 28],
  ['corner', 'Corners of buttons', 0, 40],
  ['width', 'Width of the paper', 480, 720],
] as const
const keeper = computed(() => keeperFor(id.value ?? 0))
const shownNow = computed<Kept>(
  () =>
    keeper.value.shown() ?? {
      name: here.value?.name ?? '',
      ...(here.value?.look ?? session.account!.letterhead),
    },
)
const look = reactive<Letterhead>({ ...lookOf(shownNow.value) })
const name = ref(shownNow.value.name)
function lookOf({ name: _, ...rest }: Kept): Letterhead {
  return rest
}
/** Letters in it, as they would be now, so much smaller than they are. */
const SMALLER = 0.68
const sample = ref<string[]>([])
const busy = ref(false)
const changed = computed(() => keeper.value.state.value.mine !== null)
// What is set in the form is the draft; what comes from elsewhere is set in the form.
watch(shownNow, (next) => (Object.assign(look, lookOf(next)), (name.value = next.name)))
watch([look, name], () => {
  const next = { name: name.value, ...look }
  if (!isAlike(next, shownNow.value)) keeper.value.choose(next)
})
async function load() {
  const asked = keeper.value.asks()
  const at = id.value ?? 0
  const got = await request<Answer>('/api/letterhead').catch(() => null)
  if (!got) return
  others.value = got.others
  const found = valueIn(got, at)
  if (found) keeperFor(at).hear(asked, found)
}
watch(id, load)
onMounted(() => Promise.all([load(), stamps.load()]))
let latest = 0
async function draw() {
  const mine = ++latest
  const got = await question<{ letters: string[] }>('/api/letterhead/sample', { ...look }).catch(
    () => null,
  )
  if (got && mine === latest) sample.value = got.letters
}
watch(look, draw, { immediate: true })
async function save(words: string) {
  const before = keeper.value.state.value.known?.value
  const of = keeper.value
  busy.value = true
  await of.save()
  busy.value = false
  if (!of.settled() || !before) return
  await Promise.all([session.load(), load()])
  useNotices().say(words, {
    label: 'Undo',
    run: () => {
      of.choose(before)
      void save('The letterhead is as it was.')
    },
  })
}
async function another() {
  const made = await act<{ id: number }>('/api/letterhead', 'POST', {
    name: `Letterhead ${others.value.length + 2}`,
    look: { ...look },
  })
  if (!made) return
  await load()
  await goTo({ query: { id: made.id } })
}
async function takeAway() {
  const gone = here.value
  if (!gone || !(await act(`/api/letterhead/${gone.id}`, 'DELETE'))) return
  await goTo({ query: {} })
  await load()
  useNotices().say(`“${gone.name}” is gone. Its letters are in the usual one.`, {
    label: 'Undo',
    run: () => void act(`/api/letterhead/${gone.id}/restore`, 'POST').then(load),
  })
}
</script>

<template>
  <div class="grid h-full grid-cols-[360px_1fr]">
    <form
      class="min-h-0 overflow-auto border-r border-line bg-sheet px-6 py-5"
      @submit.prevent="save('Kept. Every letter in it that has not gone out follows.')"
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
      <!-- Nothing can be chosen before the server has said how it stands. -->
      <fieldset :disabled="keeper.shown() === null">
        <p id="characters" class="muted small mt-4">Begin with a character</p>
        <div class="mt-1 flex flex-wrap gap-1.5" role="group" aria-labelledby="characters">
          <button
            v-for="one in characters"
            :key="one.name"
            type="button"
            class="flex min-h-7 items-center gap-1.5 rounded border border-line bg-sheet px-2 py-0.5 hover:bg-canvas-50"
            :title="one.about"
            @click="take(one)"
          >
            <span class="flex" aria-hidden="true"
              ><span
                v-for="color in [one.look.accent, one.look.second, one.look.paper]"
                :key="color"
                class="h-4 w-2.5 border border-line"
                :style="{ background: color }"
            /></span>
            {{ one.name }}
          </button>
        </div>
        <div class="mt-4 grid grid-cols-[124px_minmax(0,1fr)] items-center gap-x-3 gap-y-2.5">
          <template v-if="here">
            <label for="letterhead-name">Name</label>
            <input id="letterhead-name" v-model="name" class="field field-sm" maxlength="100" />
          </template>
          <span>Logo</span>
          <div>
            <img v-if="look.logo" :src="look.logo" alt="The logo" />
            <PictureSlot v-else @taken="look.logo = $event" />
            <button v-if="look.logo" type="button" class="link small" @click="look.logo = ''">
              Remove it
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
            <label for="logo-align">Align</label>
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
          <label for="second">Second colour</label>
          <span class="flex items-center gap-2"
            ><input
              id="second"
              type="color"
              class="h-7 w-12 rounded border border-line bg-sheet"
              :value="look.second || look.accent"
              @change="look.second = ($event.target as HTMLInputElement).value"
            /><span class="muted">{{ look.second || 'none' }}</span
            ><button
              v-if="look.second"
              type="button"
              class="link small min-h-6"
              aria-label="reset: no second colour"
              @click="look.second = ''"
            >
              reset
            </button></span
          >
          <span>Its grounds</span>
          <span class="flex flex-wrap gap-1">
            <span
              v-for="one in grounds"
              :key="one"
              class="rounded border border-line px-1.5 py-0.5 text-[12px]"
              :style="groundLook(one)"
              >{{ one }}</span
            ></span
          >
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
        <div class="mt-2.5 grid grid-cols-[124px_minmax(0,1fr)] items-center gap-x-3 gap-y-2.5">
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
        <KeptState class="mt-3" :keeper="keeper" />
        <div class="mt-5 flex gap-2">
          <button class="btn btn-go" :disabled="busy || !changed">Keep it</button>
          <button type="button" class="btn" :disabled="!changed" @click="keeper.takeTheirs()">
            As it was
          </button>
          <button v-if="here" type="button" class="btn ml-auto" @click="takeAway">Delete</button>
        </div>
      </fieldset>
    </form>
    <div
      class="grid min-h-0 grid-cols-2 gap-4 overflow-hidden bg-[#eceee7] p-5"
      :style="{ background: look.ground }"
    >
      <div v-for="(html, n) in sample" :key="n" :class="n === 0 && 'row-span-2'" class="relative">
        <iframe
          :srcdoc="framed(html)"
          sandbox=""
          :title="`A letter in this letterhead, ${n + 1} of ${sample.length}`"
          class="absolute inset-0 origin-top-left border-0"
          :style="{
            width: `${100 / SMALLER}%`,
            height: `${100 / SMALLER}%`,
            transform: `scale(${SMALLER})`,
          }"
        />
      </div>
    </div>
  </div>
</template>
