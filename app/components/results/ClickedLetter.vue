<script setup lang="ts">
import { firstLinkOf, FIRST_PRODUCT_LINK } from '~~/core/letters'
import { peopleWho, type Results } from './results'

/** The letter as it went out, with how many followed each link where it stands, and the fold. */
const props = defineProps<{ mailing: number; results: Results }>()
const variant = ref(0)
const screen = ref<keyof typeof foldWidths>('wide')
const { answer } = useAnswer<{ html: string }>(
  () => `/api/mailings/${props.mailing}/clicked?variant=${variant.value}`,
  { live: false },
)
const width = computed(() => foldWidths[screen.value])
const scale = computed(() => (screen.value === 'wide' ? 0.62 : 0.9))
const height = ref<number>(FOLD)
const places = shallowRef<Record<number, { left: number; top: number }>>({})
const variants = computed(() => props.results.test?.variants ?? [])
/** Of whom a link's people are a share. */
const delivered = computed(() =>
  variants.value.length
    ? (variants.value[variant.value]?.delivered ?? 0)
    : props.results.rates.delivered.hits,
)
const links = computed(() => {
  const first = firstLinkOf(variant.value)
  const most = Math.max(1, ...props.results.links.map(({ people }) => people))
  return props.results.links.flatMap((link) => {
    const own = link.no >= first && link.no < first + 1_000 && link.no < FIRST_PRODUCT_LINK
    const place = places.value[link.no]
    return own && place ? [{ ...link, place, keen: link.people / most }] : []
  })
})

/** Where each link stands, once the letter is drawn. The frame keeps out scripts; being of our origin only lets us measure in it. */
function measure(event: Event) {
  const drawn = (event.target as HTMLIFrameElement).contentDocument
  if (!drawn) return
  height.value = drawn.documentElement.scrollHeight
  places.value = Object.fromEntries(
    [...drawn.querySelectorAll('a[href^="#link-"]')].flatMap((link) => {
      const lines = [...link.getClientRects()]
      const box = link.querySelector('img')?.getBoundingClientRect() ?? lines.at(-1)
      return box && box.height > 0
        ? [[link.getAttribute('href')!.slice('#link-'.length), { left: box.right, top: box.top }]]
        : []
    }),
  )
}
/** All of it is shown, else as much as there is room for beside the figures. */
const whole = ref(false)
</script>

<template>
  <section class="sheet flex flex-col">
    <div class="sheet-head">
      <h2>The letter, and what was clicked</h2>
      <ChoiceButtons
        v-model="screen"
        label="Screen"
        :options="[
          { value: 'wide', name: 'Desktop' },
          { value: 'narrow', name: 'Phone' },
        ]"
      />
    </div>
    <p v-if="variants.length" class="flex items-center gap-2 px-4 pt-2">
      <span class="muted">Variant</span
      ><ChoiceButtons
        v-model="variant"
        label="Variant"
        :options="variants.map(({ name }, no) => ({ value: no, name }))"
      />
    </p>
    <div
      class="relative min-h-[300px] flex-1 overflow-hidden bg-[#eceee7] p-3"
      :style="!whole && { contain: 'size' }"
      role="group"
      aria-label="The letter with its clicks"
    >
      <div
        v-if="answer"
        class="relative mx-auto overflow-hidden"
        :style="{ width: `${width * scale}px`, height: `${height * scale}px` }"
      >
        <iframe
          :key="screen"
          :srcdoc="framed(answer.html)"
          sandbox="allow-same-origin"
          tabindex="-1"
          title="The letter"
          class="pointer-events-none origin-top-left border-0 bg-white"
          :style="{ width: `${width}px`, height: `${height}px`, transform: `scale(${scale})` }"
          @load="measure"
        />
        <div
          class="pointer-events-none absolute inset-x-0 border-t-2 border-dashed border-[#8a3b12]"
          :style="{ top: `${FOLD * scale}px` }"
        >
          <span class="small absolute left-1 bg-sheet px-1 font-semibold text-[#8a3b12]"
            >fold · above it without scrolling</span
          >
        </div>
        <NuxtLink
          v-for="link in links"
          :key="link.no"
          :to="peopleWho(mailing, 'clicked', undefined, [link.no])"
          class="absolute rounded-sm border border-[#37628f] px-1 text-[11.5px] leading-[17px] font-semibold whitespace-nowrap"
          :class="link.keen > 0.5 ? 'bg-[#37628f] text-white' : 'bg-[#e4ecf5] text-[#1f3d5e]'"
          :style="{
            left: `${Math.min(width * scale - 46, Math.max(0, link.place.left * scale - 10))}px`,
            top: `${Math.max(0, link.place.top * scale - 9)}px`,
          }"
          :title="`${people(link.people)} followed “${link.words}” (${percent(link.people / Math.max(1, delivered))} of ${count(delivered)} delivered)`"
          >{{ percent(link.people / Math.max(1, delivered)) }}</NuxtLink
        >
      </div>
      <p v-else class="muted">The letter is being drawn …</p>
    </div>
    <p class="muted small border-t border-line-soft px-4 py-2">
      <button type="button" class="link" :aria-expanded="whole" @click="whole = !whole">
        {{ whole ? 'Its beginning' : 'The whole letter' }}
      </button>
      · Shares of the {{ count(delivered) }} delivered. {{ people(results.totals.left) }} left by
      its leave link.
    </p>
  </section>
</template>
