<script setup lang="ts">
import { linksOf } from '~~/core/letters'

/** The letter: outline, paper, and the chosen block's settings with the proof's marks under them. */
const store = useMailing()
const view = ref<'write' | 'wide' | 'narrow' | 'text'>('write')
const n = ref(0)
const looking = computed(() => view.value !== 'write' || !store.canChange)
/** The rendition that is looked at; null: whoever comes. */
const rendition = ref<number | null>(null)
/** Somebody who was looked for; null: whoever comes. */
const person = ref<number | null>(null)
function readAs(id: number) {
  person.value = id
  rendition.value = null
  if (view.value === 'write') view.value = 'wide'
}
const reader = Number(useRoute().query.reader)
if (reader > 0) readAs(reader)
const going = computed(() => store.going?.renditions ?? [])
const letterOf = (i: number) =>
  String.fromCharCode(65 + (i % 26)) + (i >= 26 ? Math.floor(i / 26) : '')
const chosen = computed(() => (rendition.value === null ? undefined : going.value[rendition.value]))
function readRendition(i: number) {
  person.value = null
  rendition.value = rendition.value === i ? null : i
  n.value = 0
  if (view.value === 'write') view.value = 'wide'
}
const reading = useAnswer<{
  truth: number
  subject: string
  html: string
  text: string
  n: number
  count: number
  weight: number
  reader: { name: string; address: string } | null
}>(() =>
  store.mailing && looking.value && store.saving === 'saved'
    ? `/api/mailings/${store.mailing.id}/read-as?n=${n.value}${person.value !== null ? `&person=${person.value}` : chosen.value ? `&truths=${chosen.value.truths.join(',')}` : ''}`
    : null,
)
const views = [
  ['write', 'Write'],
  ['wide', 'Desktop'],
  ['narrow', 'Phone'],
  ['text', 'Plain text'],
] as const
function next(by: number) {
  person.value = null
  const of = chosen.value?.people ?? (reading.answer.value?.count || store.eligible)
  if (of) n.value = (n.value + by + of) % of
  if (view.value === 'write') view.value = 'wide'
}
/** Whether what is looked at is this rendition, chosen or met by stepping through the readers. */
const isReading = (i: number) =>
  looking.value &&
  (rendition.value === i ||
    (rendition.value === null &&
      reading.answer.value !== null &&
      going.value[i]!.truths.includes(reading.answer.value.truth)))
const differing = ref(false)
const links = computed(() => (store.letter ? linksOf(store.letter.document).length : 0))
const missing = (without: string[]) =>
  without.length ? `without ${several(without.length, 'part', 'parts')}` : 'the whole letter'
const presence = usePresence()
const stamps = useStamps()
const live = useLive()
onMounted(() => {
  void stamps.load()
  if (store.mailing) presence.begin(store.mailing.id, () => store.chosen)
})
watch(
  () => store.mailing?.id,
  (id) => id !== undefined && presence.begin(id, () => store.chosen),
)
watch(
  () => store.chosen,
  (block) => void presence.say(block),
)
watch(
  () => live.changes,
  () => {
    void stamps.load()
    void presence.say(store.chosen)
  },
)
onBeforeUnmount(presence.end)
useLetterKeys()
useKeys((event) => {
  if (isWriting(event)) return
  if (event.key === ']') next(1)
  if (event.key === '[') next(-1)
})
</script>

<template>
  <div v-if="store.isOpen && store.mailing" class="flex h-full flex-col">
    <div
      class="flex flex-none items-center gap-3 border-b border-line bg-canvas-50 px-[18px] py-1.5 text-[12.5px]"
    >
      <b>Read as</b>
      <button class="btn btn-sm !h-6 !px-2" aria-label="Previous reader" @click="next(-1)">
        ‹
      </button>
      <span v-if="looking && reading.answer.value?.reader"
        ><b class="font-[560]">{{
          reading.answer.value.reader.name || reading.answer.value.reader.address
        }}</b>
        <span v-if="person === null" class="muted"
          >{{ count(reading.answer.value.n + 1) }} of
          {{ count(chosen?.people ?? reading.answer.value.count) }}</span
        ></span
      >
      <span v-else class="muted">anybody</span>
      <button class="btn btn-sm !h-6 !px-2" aria-label="Next reader" @click="next(1)">›</button>
      <FindReader @choose="readAs" />
      <span class="muted"
        >· {{ several(links, 'link', 'links')
        }}<template v-if="reading.answer.value">
          · {{ Math.round(reading.answer.value.weight / 1024) }} KB</template
        ></span
      >
      <div
        v-if="going.length > 1"
        class="flex min-w-0 items-center gap-1.5 overflow-hidden border-l border-line pl-3"
      >
        <b class="flex-none">{{ going.length }} renditions</b>
        <div class="flex min-w-0 items-center gap-1.5" role="group" aria-label="Renditions">
          <button
            v-for="(one, i) in going.slice(0, 8)"
            :key="one.truths.join()"
            class="min-h-6 flex-none rounded border px-1.5"
            :class="isReading(i) ? 'border-brass-500 bg-brass-100' : 'border-line bg-sheet'"
            :aria-pressed="rendition === i"
            :title="missing(one.without)"
            @click="readRendition(i)"
          >
            {{ letterOf(i) }} {{ count(one.people) }}
          </button>
        </div>
        <span v-if="going.length > 8" class="muted flex-none">and {{ going.length - 8 }} more</span>
        <button class="link flex-none" @click="differing = true">What differs</button>
      </div>
      <div class="ml-auto flex flex-none gap-1" role="group" aria-label="View">
        <button
          v-for="[key, name] in views"
          :key="key"
          class="min-h-6 rounded px-2"
          :class="view === key ? 'bg-canvas-200 font-semibold' : 'hover:bg-canvas-100'"
          :aria-pressed="view === key"
          @click="view = key"
        >
          {{ name }}
        </button>
        <NuxtLink
          class="inline-flex min-h-6 items-center rounded px-2 hover:bg-canvas-100"
          :to="{
            path: `/mail/${store.mailing.id}/renderings`,
            query: { n, truths: chosen?.truths.join(',') },
          }"
          >All renderings</NuxtLink
        >
      </div>
    </div>
    <RenditionDifference
      v-if="differing"
      :renditions="going"
      :name-of="letterOf"
      @close="differing = false"
    />
    <div class="grid min-h-0 flex-1 grid-cols-[222px_1fr_304px]">
      <LetterOutline />
      <div class="min-h-0 overflow-auto bg-[#eceee7]" tabindex="-1">
        <LetterPaper v-if="!looking" />
        <div v-else-if="reading.answer.value" class="flex h-full flex-col items-center py-4">
          <p class="mb-2">
            <span class="muted">Subject</span> <b>{{ reading.answer.value.subject }}</b>
          </p>
          <pre
            v-if="view === 'text'"
            class="sheet w-[640px] max-w-full flex-1 overflow-auto p-5 text-[13px] whitespace-pre-wrap"
            tabindex="0"
            >{{ reading.answer.value.text }}</pre>
          <iframe
            v-else
            :srcdoc="framed(reading.answer.value.html)"
            sandbox=""
            title="The letter as it is read"
            class="flex-1 border border-line bg-sheet"
            :class="view === 'narrow' ? 'w-[375px]' : 'w-[660px] max-w-full'"
          />
        </div>
      </div>
      <div class="min-h-0 overflow-auto border-l border-line bg-sheet">
        <TightenPanel
          v-if="store.canChange && store.tightening"
          @close="store.tightening = false"
        />
        <BlockSettings v-if="store.canChange" />
        <RowSettings v-if="store.canChange" />
        <StampSettings v-if="store.canChange" />
        <BlockComments />
        <SubjectPanel v-if="store.canChange && !store.chosen" />
        <ApprovalPanel v-if="!store.chosen" />
        <section class="border-b border-line px-3.5 py-3">
          <div class="flex justify-between">
            <h2>Proof</h2>
            <span class="small muted">as you write</span>
          </div>
          <p v-if="store.marks && !store.marks.length" class="muted mt-1.5">No marks.</p>
          <button
            v-for="(mark, i) in store.marks ?? []"
            :key="i"
            class="grid w-full grid-cols-[16px_1fr] gap-2 border-t border-line-soft py-1.5 text-left text-[12.5px] first-of-type:border-0"
            @click="store.chosen = mark.blockId"
          >
            <MarkDot :level="mark.level" /><span
              ><b class="font-semibold">{{ mark.title }}</b
              ><br /><span class="muted">{{ mark.detail }}</span></span
            >
          </button>
        </section>
      </div>
    </div>
  </div>
</template>
