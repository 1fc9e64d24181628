<script setup lang="ts">
import type { Editor } from '@tiptap/vue-3'
import {
  AlignCenter,
  AlignLeft,
  AlignRight,
  Bold,
  Italic,
  Link as LinkIcon,
  List,
  ListOrdered,
  Strikethrough,
  Underline,
} from '@lucide/vue'
import { fillInFormats, safeLink, writeFillIn } from '~~/core/letters'

/** What one can do with the chosen text: marks, a link, lists, a fill-in. */
const props = defineProps<{ editor: Editor; lists: boolean }>()
const store = useMailing()
const open = ref<'link' | 'fill-in' | null>(null)
const href = ref('')
const path = ref('person.first_name')
const fallback = ref('there')
const format = ref('')

/** How many of the audience have the chosen value. */
const canBeMissing = computed(
  () => /^(person|sign_up|event)\./.test(path.value) && path.value !== 'person.address',
)
const { answer: gap } = useAnswer<{ have: number | null; of: number | null }>(
  () =>
    open.value === 'fill-in' && canBeMissing.value
      ? `/api/mailings/${store.mailing!.id}/gap?path=${path.value}`
      : null,
  { live: false },
)

const { answer: readerPaths } = useAnswer<{ path: string; name: string }[]>(
  () => (open.value === 'fill-in' ? '/api/fill-ins' : null),
  { live: false },
)

const address = ref<HTMLInputElement | null>(null)
/** The words stay chosen while the address is typed, which is typed here and not over them. */
async function openLink() {
  href.value = String(props.editor.getAttributes('link').href ?? '')
  open.value = open.value === 'link' ? null : 'link'
  await nextTick()
  address.value?.focus()
  address.value?.select()
}
watch(
  () => store.linkAsked,
  () => {
    open.value = null
    void openLink()
  },
)
function setLink() {
  const url = safeLink(href.value)
  const chain = props.editor.chain().focus().extendMarkRange('link')
  if (url) chain.setLink({ href: url }).run()
  else chain.unsetLink().run()
  open.value = null
}
function insertFillIn() {
  const expression = writeFillIn(
    path.value,
    fallback.value.trim() === '' ? null : fallback.value.trim(),
    format.value,
  )
  props.editor.chain().focus().insertContent({ type: 'fillIn', attrs: { expression } }).run()
  open.value = null
}
const aligns = [
  { to: null, name: 'Left', icon: AlignLeft },
  { to: 'center', name: 'In the middle', icon: AlignCenter },
  { to: 'right', name: 'Right', icon: AlignRight },
]
const tools = computed(() => [
  {
    name: 'Bold',
    icon: Bold,
    on: props.editor.isActive('bold'),
    run: () => props.editor.chain().focus().toggleBold().run(),
  },
  {
    name: 'Italic',
    icon: Italic,
    on: props.editor.isActive('italic'),
    run: () => props.editor.chain().focus().toggleItalic().run(),
  },
  {
    name: 'Underline',
    icon: Underline,
    on: props.editor.isActive('underline'),
    run: () => props.editor.chain().focus().toggleUnderline().run(),
  },
  {
    name: 'Strike through',
    icon: Strikethrough,
    on: props.editor.isActive('strike'),
    run: () => props.editor.chain().focus().toggleStrike().run(),
  },
  ...(props.lists
    ? [
        ...aligns.map(({ to, name, icon }) => ({
          name,
          icon,
          on: props.editor.isActive({ textAlign: to }),
          run: () =>
            props.editor.chain().focus().updateAttributes('paragraph', { textAlign: to }).run(),
        })),
        {
          name: 'List',
          icon: List,
          on: props.editor.isActive('bulletList'),
          run: () => props.editor.chain().focus().toggleBulletList().run(),
        },
        {
          name: 'Numbered list',
          icon: ListOrdered,
          on: props.editor.isActive('orderedList'),
          run: () => props.editor.chain().focus().toggleOrderedList().run(),
        },
      ]
    : []),
])
</script>

<template>
  <div class="mt-2.5 text-[12.5px]">
    <div
      class="flex flex-wrap items-center rounded-[5px] border border-line"
      role="toolbar"
      aria-label="Text"
    >
      <button
        v-for="tool in tools"
        :key="tool.name"
        class="h-7 w-7 p-1.5"
        :class="tool.on && 'bg-brass-100'"
        :aria-label="tool.name"
        :aria-pressed="tool.on"
        @mousedown.prevent
        @click="tool.run"
      >
        <component :is="tool.icon" :size="14" />
      </button>
      <button
        class="h-7 w-7 p-1.5"
        :class="editor.isActive('link') && 'bg-brass-100'"
        aria-label="Link"
        :aria-expanded="open === 'link'"
        @mousedown.prevent
        @click="openLink"
      >
        <LinkIcon :size="14" />
      </button>
      <button
        class="h-7 px-2"
        :aria-expanded="open === 'fill-in'"
        @mousedown.prevent
        @click="open = open === 'fill-in' ? null : 'fill-in'"
      >
        Fill-in
      </button>
      <EmojiPicker @choose="editor.chain().focus().insertContent($event).run()" />
    </div>
    <form v-if="open === 'link'" class="mt-2 flex gap-2" @submit.prevent="setLink">
      <input
        ref="address"
        v-model="href"
        class="field field-sm"
        placeholder="https://"
        aria-label="Where the link leads"
      /><button class="btn btn-sm btn-go">Set</button>
    </form>
    <form
      v-if="open === 'fill-in'"
      class="mt-2 grid grid-cols-[82px_1fr] items-center gap-2"
      @submit.prevent="insertFillIn"
    >
      <label for="fill-in-field">Value</label>
      <select id="fill-in-field" v-model="path" class="field field-sm">
        <option
          v-for="field in store.mailing!.fields"
          :key="field.key"
          :value="`person.${field.key}`"
        >
          {{ field.name }}
        </option>
        <option value="person.address">Address</option>
        <option v-for="value in readerPaths ?? []" :key="value.path" :value="value.path">
          {{ value.name }}
        </option>
        <option value="list.name">Name of the list</option>
        <option value="sender.name">Sender’s name</option>
      </select>
      <template v-if="gap?.of && canBeMissing">
        <span />
        <span class="muted">{{ count(gap.have!) }} of {{ people(gap.of) }} have one</span>
      </template>
      <label for="fill-in-fallback">If empty</label>
      <input
        id="fill-in-fallback"
        v-model="fallback"
        class="field field-sm"
        placeholder="nothing"
      />
      <label for="fill-in-format">Format</label>
      <select id="fill-in-format" v-model="format" class="field field-sm">
        <option v-for="one in fillInFormats" :key="one.filter" :value="one.filter">
          {{ one.name }}
        </option>
      </select>
      <span /><button class="btn btn-sm btn-go justify-center">Insert the fill-in</button>
    </form>
  </div>
</template>
