<script setup lang="ts">
import {
  blocksOf,
  headingSize,
  isEmptyText,
  plainInline,
  readFillIn,
  shownEntries,
  type Block,
  type InheritedStyle,
  type RichText,
} from '~~/core/letters'

/** A block as it looks on the paper, edited in place. */
const props = defineProps<{ block: Block; chosen: boolean; style: InheritedStyle }>()
const emit = defineEmits<{ slash: [] }>()
const store = useMailing()
const setText = (text: RichText) => store.update(props.block.id, { text })
const typed = (event: Event) => (event.target as HTMLInputElement).value
const headings = computed(() =>
  blocksOf(store.letter!.document).flatMap((block) =>
    block.kind === 'heading' && !isEmptyText(block.text)
      ? [plainInline(block.text, (e) => readFillIn(e).path.split('.').at(-1)!)]
      : [],
  ),
)
function setCell(row: number, column: number, value: string) {
  if (props.block.kind !== 'table') return
  store.update(props.block.id, {
    cells: props.block.cells.map((cells, r) =>
      r === row ? cells.map((cell, c) => (c === column ? value : cell)) : cells,
    ),
  })
}
/** With what one sees on it, where the library knows and nothing is said yet. */
function takePicture(src: string, alt: string) {
  const said = 'alt' in props.block && props.block.alt
  store.update(props.block.id, { src, ...(alt && !said ? { alt } : {}) })
}
const filmStill = computed(() =>
  props.block.kind === 'film' && props.block.src.startsWith('/')
    ? `${props.block.src}-1200-play`
    : 'src' in props.block
      ? props.block.src
      : '',
)
const pickWords = computed(() =>
  props.block.kind === 'picks'
    ? { viewed: 'Looked at', together: 'Goes with it', best: 'Sells best', new: 'New' }[
        props.block.by
      ]
    : '',
)
const button = computed(() => ({
  background: props.style.accent,
  borderRadius: `${props.style.corner}px`,
  fontFamily: props.style.textFont,
}))
</script>

<template>
  <div
    :style="{ color: style.ink, fontFamily: style.textFont, fontSize: `${style.size}px` }"
    class="leading-[1.55]"
  >
    <div
      v-if="block.kind === 'heading'"
      class="pt-4 pb-1.5 leading-tight font-bold"
      :style="{
        fontFamily: style.headingFont,
        fontSize: `${headingSize(style.size, block.level)}px`,
        textAlign: block.align,
      }"
    >
      <TextInPlace
        :text="block.text"
        label="Heading"
        single-line
        :chosen="chosen"
        @change="setText"
        @slash="emit('slash')"
      />
    </div>
    <div v-else-if="block.kind === 'text'" class="py-1.5">
      <TextInPlace
        :text="block.text"
        label="Text"
        :chosen="chosen"
        @change="setText"
        @slash="emit('slash')"
      />
    </div>
    <blockquote
      v-else-if="block.kind === 'quote'"
      class="my-2.5 border-l-[3px] pl-4"
      :style="{ borderColor: style.accent }"
    >
      <TextInPlace
        :text="block.text"
        label="Quote"
        :chosen="chosen"
        @change="setText"
        @slash="emit('slash')"
      />
      <input
        class="min-h-6 w-full bg-transparent text-[#5b6459]"
        :value="block.by"
        placeholder="Who said it"
        aria-label="Who said it"
        @input="store.update(block.id, { by: typed($event) })"
      />
    </blockquote>
    <div v-else-if="block.kind === 'picture'" class="py-2">
      <PictureSlot
        :src="block.src"
        :alt="block.alt"
        :width="block.width"
        :corner="style.corner"
        @taken="takePicture"
      />
    </div>
    <div v-else-if="block.kind === 'film'" class="py-2">
      <PictureSlot :src="filmStill" :alt="block.alt" @taken="takePicture" />
    </div>
    <div v-else-if="block.kind === 'button'" class="py-3" :style="{ textAlign: block.align }">
      <input
        class="px-4 py-2.5 text-center text-white"
        :style="{ ...button, width: `calc(${Math.max(6, block.label.length)}ch + 3rem)` }"
        :value="block.label"
        aria-label="Words on the button"
        maxlength="200"
        @input="store.update(block.id, { label: typed($event) })"
      />
    </div>
    <div v-else-if="block.kind === 'product'" class="py-2">
      <PictureSlot
        :src="block.src"
        :alt="block.name"
        :corner="style.corner"
        @taken="store.update(block.id, { src: $event })"
      />
      <input
        class="mt-1.5 min-h-6 w-full bg-transparent font-bold"
        :value="block.name"
        placeholder="What it is"
        aria-label="Product"
        @input="store.update(block.id, { name: typed($event) })"
      />
      <input
        class="min-h-6 w-full bg-transparent"
        :value="block.about"
        placeholder="Why one would want it"
        aria-label="About it"
        @input="store.update(block.id, { about: typed($event) })"
      />
      <input
        class="min-h-6 w-full bg-transparent"
        :value="block.price"
        placeholder="£0"
        aria-label="Price"
        @input="store.update(block.id, { price: typed($event) })"
      />
      <input
        class="mt-2 px-4 py-2.5 text-center text-white"
        :style="{ ...button, width: `calc(${Math.max(6, block.label.length)}ch + 3rem)` }"
        :value="block.label"
        aria-label="Words on the button"
        @input="store.update(block.id, { label: typed($event) })"
      />
    </div>
    <div v-else-if="block.kind === 'picks'" class="py-2">
      <div
        class="grid gap-3"
        :style="{ gridTemplateColumns: `repeat(${block.many}, minmax(0, 1fr))` }"
      >
        <div v-for="n in block.many" :key="n">
          <div class="h-24 bg-[#e4e8dc]" :style="{ borderRadius: `${style.corner}px` }" />
          <p class="mt-1.5 font-bold">{{ pickWords }}</p>
          <span class="underline" :style="{ color: style.accent }">{{ block.label }}</span>
        </div>
      </div>
      <p class="mt-1 text-[12px] text-ink-500" style="font-family: var(--font-ui)">
        Others for each reader. Step through them above to see whose is what.
      </p>
    </div>
    <div v-else-if="block.kind === 'feed'" class="py-2">
      <p v-for="(entry, i) in shownEntries(block)" :key="i" class="mb-3.5 last:mb-0">
        <b class="underline" :style="{ color: style.accent }">{{ entry.title }}</b><template
          v-if="block.about && entry.about"
          ><br />{{ entry.about }}</template
        >
      </p>
      <p
        v-if="!block.entries.length"
        class="bg-[#e4e8dc] px-3 py-4 text-[12.5px] text-ink-700"
        style="font-family: var(--font-ui)"
      >
        What is new on your site stands here. Set the address of its feed at the right.
      </p>
    </div>
    <button v-else-if="block.kind === 'divider'" class="block w-full py-3.5" aria-label="Divider">
      <span class="block border-t border-line" />
    </button>
    <button
      v-else-if="block.kind === 'space'"
      class="block w-full"
      :style="{ height: `${block.height}px` }"
      aria-label="Space"
    />
    <table v-else-if="block.kind === 'table'" class="my-2 w-full border-collapse text-left">
      <tbody>
        <tr v-for="(cells, r) in block.cells" :key="r">
          <td v-for="(cell, c) in cells" :key="c" class="border-b border-line">
            <input
              class="w-full bg-transparent py-1.5"
              :class="block.head && r === 0 && 'font-bold'"
              :value="cell"
              :aria-label="`Row ${r + 1}, column ${c + 1}`"
              @input="setCell(r, c, typed($event))"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else-if="block.kind === 'social'" class="py-2.5" :style="{ textAlign: block.align }">
      <template v-for="(link, i) in block.links" :key="i"
        ><template v-if="i"> · </template
        ><span class="underline" :style="{ color: style.accent }">{{
          link.name || 'a name and a link, at the right'
        }}</span></template
      >
    </p>
    <div v-else-if="block.kind === 'contents'" class="py-2.5">
      <p class="font-bold">{{ block.title }}</p>
      <ul class="list-disc pl-[22px]">
        <li v-for="(words, i) in headings" :key="i">
          <span class="underline" :style="{ color: style.accent }">{{ words }}</span>
        </li>
      </ul>
      <p v-if="!headings.length" class="text-ink-500">The headings of the letter stand here.</p>
    </div>
    <textarea
      v-else-if="block.kind === 'code'"
      class="my-1.5 field-sizing-content min-h-16 w-full bg-[#f3f4ef] p-3 font-mono text-[13px] leading-normal"
      :value="block.code"
      aria-label="Code"
      placeholder="As it is typed"
      @input="store.update(block.id, { code: typed($event) })"
    />
    <div v-else-if="block.kind === 'html'" class="py-1.5">
      <textarea
        class="field-sizing-content max-h-72 min-h-16 w-full border border-dashed border-ink-300 bg-paper p-2 font-mono text-[12.5px] leading-normal text-ink-900"
        :value="block.html"
        aria-label="HTML"
        placeholder="<p>Your own HTML</p>"
        @input="store.update(block.id, { html: typed($event) })"
      />
      <p class="text-[12px] text-ink-500" style="font-family: var(--font-ui)">
        What could run, send or load something from elsewhere is removed. See it under “Desktop”.
      </p>
    </div>
    <div v-else class="pt-5 pb-6 text-[12px] leading-normal text-[#5b6459]">
      <TextInPlace
        :text="block.text"
        label="Footer"
        :chosen="chosen"
        @change="setText"
        @slash="() => {}"
      />
      <p class="mt-2">
        Your postal address and “Unsubscribe from {{ store.mailing!.list ?? 'this list' }}” stand
        here in every letter.
      </p>
    </div>
  </div>
</template>
