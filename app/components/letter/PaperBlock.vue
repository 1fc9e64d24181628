<script setup lang="ts">
import { ArrowDown, ArrowUp, Copy, Trash2 } from '@lucide/vue'
import type { Block, RichText } from '~~/core/letters'

/** One block on the paper. */
const props = defineProps<{ block: Block; index: number }>()
const emit = defineEmits<{ insertAfter: [] }>()
const store = useMailing()
const session = useSession()
const look = computed(() => session.account!.letterhead)
const here = computed(() => store.chosen === props.block.id)
const last = computed(() => store.letter!.document.rows.length - 1)
const uploading = ref(false)

async function upload(file: File | undefined) {
  if (!file) return
  uploading.value = true
  const made = await ask<{ path: string }>(`/api/pictures?name=${encodeURIComponent(file.name)}`, {
    method: 'POST',
    body: file,
    headers: { 'Content-Type': 'application/octet-stream' },
  })
  uploading.value = false
  if (made) store.update(props.block.id, { src: made.path })
}
const setText = (text: RichText) => store.update(props.block.id, { text })
</script>

<template>
  <div
    class="relative px-7"
    :class="
      here
        ? 'outline-2 -outline-offset-2 outline-brass-500 outline-solid'
        : 'hover:outline-1 hover:-outline-offset-1 hover:outline-brass-300 hover:outline-solid'
    "
    :data-block="block.id"
    :data-kind="block.kind"
    @mousedown="store.chosen = block.id"
    @focusin="store.chosen = block.id"
  >
    <div
      v-if="here"
      class="absolute -top-3.5 right-2 z-20 flex rounded border border-line bg-sheet"
      style="font-family: var(--font-ui)"
    >
      <button
        v-if="index > 0"
        class="h-6 w-6 p-[5px]"
        aria-label="Move up"
        @click="store.move(index, index - 1)"
      >
        <ArrowUp :size="13" />
      </button>
      <button
        v-if="index < last"
        class="h-6 w-6 p-[5px]"
        aria-label="Move down"
        @click="store.move(index, index + 1)"
      >
        <ArrowDown :size="13" />
      </button>
      <template v-if="block.kind !== 'footer'">
        <button class="h-6 w-6 p-[5px]" aria-label="Duplicate" @click="store.duplicate(index)">
          <Copy :size="13" />
        </button>
        <button
          class="h-6 w-6 p-[5px] text-bad-600"
          aria-label="Delete"
          @click="store.remove(block.id)"
        >
          <Trash2 :size="13" />
        </button>
      </template>
    </div>
    <div
      v-if="block.kind === 'heading'"
      class="pt-4 pb-1.5 leading-tight font-bold"
      :style="{
        fontFamily: look.headingFont,
        fontSize: block.level === 1 ? '27px' : '20px',
        textAlign: block.align,
      }"
    >
      <TextEditor
        :text="block.text"
        label="Heading"
        single-line
        :chosen="here"
        @change="setText"
        @slash="emit('insertAfter')"
      />
    </div>
    <div v-else-if="block.kind === 'text'" class="py-1.5 text-[15px] leading-[1.55]">
      <TextEditor
        :text="block.text"
        label="Text"
        :chosen="here"
        @change="setText"
        @slash="emit('insertAfter')"
      />
    </div>
    <div v-else-if="block.kind === 'picture'" class="py-2">
      <img
        v-if="block.src"
        :src="block.src"
        :alt="block.alt"
        :style="{ width: `${block.width}%` }"
      />
      <label
        v-else
        class="flex h-36 cursor-pointer items-center justify-center gap-3 border border-dashed border-ink-300 bg-paper text-[13.5px] text-ink-700 focus-within:border-brass-500"
        style="font-family: var(--font-ui)"
        @dragover.prevent
        @drop.prevent="upload($event.dataTransfer?.files[0])"
      >
        <input
          type="file"
          accept="image/*"
          class="sr-only"
          aria-label="Choose a picture"
          @change="upload(($event.target as HTMLInputElement).files?.[0])"
        />
        <span class="btn btn-sm">Choose a picture</span
        >{{ uploading ? 'Making it to size…' : 'or drop it here' }}
      </label>
    </div>
    <div v-else-if="block.kind === 'button'" class="py-3" :style="{ textAlign: block.align }">
      <input
        class="rounded px-4 py-2.5 text-center text-[15px] text-white"
        :style="{
          background: look.accent,
          width: `calc(${Math.max(6, block.label.length)}ch + 3rem)`,
        }"
        :value="block.label"
        aria-label="Words on the button"
        @input="store.update(block.id, { label: ($event.target as HTMLInputElement).value })"
      />
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
    <div v-else class="pt-5 pb-6 text-[12px] leading-normal text-[#5b6459]">
      <TextEditor
        :text="block.text"
        label="Footer"
        :chosen="here"
        @change="setText"
        @slash="() => {}"
      />
      <p class="mt-2">
        Your postal address and “Leave {{ store.mailing!.list ?? 'this list' }}” stand here in every
        letter.
      </p>
    </div>
  </div>
</template>
