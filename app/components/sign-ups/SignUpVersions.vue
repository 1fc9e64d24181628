<script setup lang="ts">
import { kindNames, type SignUpForm } from '~~/core/sign-ups'

/** What was published, version by version, as visitors saw it; each can be taken up again. */
const props = defineProps<{ open: boolean }>()
const emit = defineEmits<{ close: [] }>()
const store = useSignUp()
const { dayAndTime } = useTimes()
const chosen = ref<number | null>(null)
const versions = computed(() => store.signUp?.versions ?? [])
watch(
  () => props.open,
  (open) => open && (chosen.value = versions.value[0]?.version ?? null),
)
const { answer, problem } = useAnswer<{ form: SignUpForm; html: string; style: string }>(() =>
  props.open && chosen.value !== null
    ? `/api/sign-ups/${store.signUp!.id}/versions/${chosen.value}`
    : null,
)
const drawn = computed(() =>
  answer.value
    ? `<!doctype html><style>body{margin:0;padding:14px;background:${store.signUp!.letterhead.ground}}${answer.value.style}</style>${answer.value.html}`
    : '',
)
const stateOf = (version: number) => {
  const { test, liveVersion, state } = store.signUp!
  if (test?.versions.includes(version)) return 'tested'
  return version === liveVersion ? (state === 'paused' ? 'paused' : 'live') : ''
}
function takeUp() {
  store.set({ form: answer.value!.form })
  useNotices().say(`The draft is version ${chosen.value} again.`, {
    label: 'Undo',
    run: () => store.undo(),
  })
  emit('close')
}
</script>

<template>
  <BaseDialog :open="open" title="Versions" wide @close="emit('close')">
    <div class="grid h-[min(520px,60vh)] grid-cols-[220px_minmax(0,1fr)] gap-4">
      <ul class="m-0 list-none overflow-auto p-0" aria-label="Versions">
        <li v-for="one in versions" :key="one.version">
          <button
            type="button"
            class="block w-full rounded-md px-2.5 py-1.5 text-left"
            :class="one.version === chosen ? 'bg-brass-100' : 'hover:bg-canvas-100'"
            :aria-current="one.version === chosen ? 'true' : undefined"
            @click="chosen = one.version"
          >
            <span class="flex justify-between gap-2"
              ><span class="font-[560]">Version {{ one.version }}</span
              ><span class="muted small">{{ stateOf(one.version) }}</span></span
            ><span class="muted small block"
              >{{ dayAndTime(one.at) }}{{ one.by_name ? `, ${one.by_name}` : '' }}</span
            >
          </button>
        </li>
      </ul>
      <div class="min-h-0">
        <p v-if="problem" class="fault" role="alert">{{ problem }}</p>
        <template v-else-if="answer">
          <p class="muted small mb-2">
            {{ kindNames[answer.form.kind] }}, as visitors saw it; nothing can be pressed here.
          </p>
          <iframe
            class="h-[calc(100%-28px)] w-full border border-line"
            :title="`Version ${chosen}`"
            sandbox=""
            :srcdoc="drawn"
          />
        </template>
      </div>
    </div>
    <template #actions
      ><button class="btn" @click="emit('close')">Close</button
      ><button v-if="store.canChange" class="btn btn-go" :disabled="!answer" @click="takeUp">
        Edit version {{ chosen }} again
      </button></template
    >
  </BaseDialog>
</template>
