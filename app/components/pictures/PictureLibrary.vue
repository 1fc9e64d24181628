<script setup lang="ts">
import type { LibraryPicture } from '~~/core/letters'

/** The pictures: found by folder and words, brought by choosing, dropping or pasting. */
const props = defineProps<{ choosing?: boolean }>()
const emit = defineEmits<{ choose: [picture: LibraryPicture] }>()
const library = useAnswer<LibraryPicture[]>(() => '/api/pictures')
const words = ref('')
const folder = ref<string | null>(null)
const open = ref<number | null>(null)
const cutting = ref<LibraryPicture | null>(null)
const waiting = ref(0)
const folders = computed(() =>
  [...new Set((library.answer.value ?? []).map((one) => one.folder).filter(Boolean))].sort(),
)
const found = computed(() =>
  (library.answer.value ?? []).filter(
    (one) =>
      (folder.value === null || one.folder === folder.value) &&
      `${one.name} ${one.alt} ${one.folder}`.toLowerCase().includes(words.value.toLowerCase()),
  ),
)
const chosen = computed(() => library.answer.value?.find(({ id }) => id === open.value) ?? null)
async function bring(files: Iterable<File>) {
  for (const file of [...files].filter(({ type }) => type.startsWith('image/') || !type)) {
    waiting.value++
    await act(
      `/api/pictures?${new URLSearchParams({ name: file.name, folder: folder.value ?? '' })}`,
      'POST',
      file,
    )
    waiting.value--
  }
  await library.reload()
}
function paste(event: ClipboardEvent) {
  const files = [...(event.clipboardData?.files ?? [])]
  if (!files.length) return
  event.preventDefault()
  void bring(files)
}
onMounted(() => window.addEventListener('paste', paste))
onUnmounted(() => window.removeEventListener('paste', paste))
async function change(picture: LibraryPicture, to: Partial<LibraryPicture>) {
  await act(`/api/pictures/${picture.id}`, 'PUT', to)
  await library.reload()
}
async function remove(picture: LibraryPicture) {
  if (!(await act(`/api/pictures/${picture.id}`, 'DELETE'))) return
  open.value = null
  await library.reload()
  useNotices().say(`“${picture.name}” is gone from here. Letters that show it go on doing so.`, {
    label: 'Undo',
    run: () => void act(`/api/pictures/${picture.id}/restore`, 'POST').then(library.reload),
  })
}
async function cut() {
  cutting.value = null
  await library.reload()
  open.value = library.answer.value?.[0]?.id ?? null
}
function press(picture: LibraryPicture) {
  if (props.choosing) emit('choose', picture)
  else open.value = open.value === picture.id ? null : picture.id
}
const weight = (bytes: number) =>
  bytes < 1024 * 1024
    ? `${Math.max(1, Math.round(bytes / 1024))} KB`
    : `${(bytes / 1024 / 1024).toFixed(1)} MB`
const heavy = (picture: LibraryPicture) => picture.weight > 400 * 1024
const id = useId()
</script>

<template>
  <div
    class="grid min-h-0 gap-5"
    :class="choosing ? 'grid-cols-1' : 'grid-cols-[1fr_280px]'"
    @dragover.prevent
    @drop.prevent="bring($event.dataTransfer?.files ?? [])"
  >
    <div class="min-w-0">
      <div class="flex flex-wrap items-center gap-2">
        <input
          v-model="words"
          type="search"
          class="field w-60"
          aria-label="Find a picture"
          placeholder="by name or what one sees"
        />
        <label class="btn cursor-pointer focus-within:outline-2 focus-within:outline-brass-500">
          {{
            waiting
              ? `Making ${several(waiting, 'picture', 'pictures')} to size…`
              : 'Bring pictures'
          }}
          <input
            type="file"
            accept="image/*"
            multiple
            class="sr-only"
            @change="bring(($event.target as HTMLInputElement).files ?? [])"
          />
        </label>
        <span class="muted small">or drop them here, or paste them</span>
      </div>
      <ChoiceButtons
        v-if="folders.length"
        v-model="folder"
        class="mt-3"
        label="Folders"
        :options="[{ value: null, name: 'All' }, ...folders.map((name) => ({ value: name, name }))]"
      />
      <ul
        class="m-0 mt-4 grid list-none gap-3 p-0"
        :class="choosing ? 'max-h-[46vh] grid-cols-3 overflow-auto' : 'grid-cols-4'"
        aria-label="Pictures"
      >
        <li v-for="picture in found" :key="picture.id">
          <button
            type="button"
            class="sheet block w-full overflow-hidden text-left hover:border-brass-500"
            :class="open === picture.id && '!border-brass-500'"
            :aria-pressed="choosing ? undefined : open === picture.id"
            @click="press(picture)"
          >
            <img
              :src="`${picture.path}-400`"
              :alt="picture.alt || picture.name"
              loading="lazy"
              class="h-28 w-full bg-[#eceee7] object-contain"
            />
            <span class="block truncate px-2 pt-1.5 font-[560]">{{ picture.name }}</span>
            <span class="muted small block px-2 pb-1.5"
              >{{ picture.width }} × {{ picture.height }} · {{ weight(picture.weight) }}</span
            >
          </button>
        </li>
      </ul>
      <p v-if="library.answer.value && !found.length" class="sheet muted mt-2 p-6">
        {{
          library.answer.value.length
            ? 'No picture is called that.'
            : 'There are no pictures yet. Drop some here, or bring them with the button above.'
        }}
      </p>
    </div>
    <aside v-if="!choosing" class="sheet self-start p-3.5" aria-label="The picture">
      <template v-if="chosen">
        <img
          :src="`${chosen.path}-600`"
          :alt="chosen.alt || chosen.name"
          class="max-h-44 w-full bg-[#eceee7] object-contain"
        />
        <div class="mt-3 space-y-2 text-[12.5px]">
          <label :for="`${id}-name`" class="block font-[560]">Name</label>
          <KeptInput
            :id="`${id}-name`"
            :value="chosen.name"
            class="field field-sm"
            maxlength="200"
            @taken="change(chosen, { name: $event })"
          />
          <label :for="`${id}-alt`" class="block font-[560]">What one sees on it</label>
          <KeptInput
            :id="`${id}-alt`"
            :value="chosen.alt"
            class="field field-sm"
            maxlength="500"
            @taken="change(chosen, { alt: $event })"
          />
          <label :for="`${id}-folder`" class="block font-[560]">Folder</label>
          <KeptInput
            :id="`${id}-folder`"
            :value="chosen.folder"
            class="field field-sm"
            maxlength="60"
            :list="`${id}-folders`"
            @taken="change(chosen, { folder: $event })"
          />
          <datalist :id="`${id}-folders`">
            <option v-for="one in folders" :key="one" :value="one" />
          </datalist>
          <p>
            {{ chosen.width }} × {{ chosen.height }}, {{ weight(chosen.weight) }}.
            <span v-if="heavy(chosen)" class="text-warn-600"
              >Heavy, but letters get it in the width in which they show it.</span
            >
          </p>
          <p v-if="!chosen.alt" class="text-warn-600">
            Say what one sees on it: many readers have pictures off.
          </p>
          <p v-if="chosen.usedIn.length">
            In {{ several(chosen.usedIn.length, 'letter', 'letters') }}:
            <template v-for="(one, i) in chosen.usedIn.slice(0, 6)" :key="one.id"
              ><template v-if="i">, </template
              ><NuxtLink class="link" :to="`/mail/${one.id}`">{{ one.name }}</NuxtLink></template
            ><template v-if="chosen.usedIn.length > 6">
              and {{ chosen.usedIn.length - 6 }} more</template
            >
          </p>
          <p v-else class="muted">In no letter.</p>
          <p class="flex flex-wrap gap-2 pt-1">
            <button
              v-if="chosen.mime !== 'image/gif'"
              type="button"
              class="btn btn-sm"
              @click="cutting = chosen"
            >
              Cut and turn…</button
            ><button type="button" class="btn btn-sm" @click="remove(chosen)">Delete</button>
          </p>
        </div>
      </template>
      <p v-else class="muted">
        Choose a picture to name it, to say what one sees on it, to cut it, and to see in which
        letters it is.
      </p>
    </aside>
    <PictureCutter v-if="cutting" :picture="cutting" @close="cutting = null" @made="cut" />
  </div>
</template>
