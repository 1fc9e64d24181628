<script setup lang="ts">
import { localProblem, repliesProblem, type LetterSender, type OwnSender } from '~~/core/senders'

/** Whom mail comes from and where answers go, where that is not as the account (`usual`) has it. */
const props = defineProps<{ sender: OwnSender; usual: LetterSender }>()
const emit = defineEmits<{ change: [sender: OwnSender] }>()
const domain = computed(() => props.usual.address.split('@')[1] ?? '')
const usualLocal = computed(() => props.usual.address.split('@')[0] ?? '')
const faults = reactive({ local: null as string | null, replies: null as string | null })
const set = (change: Partial<OwnSender>) => emit('change', { ...props.sender, ...change })

/** What is wrong stays as it was typed, beside its fault. */
const local = ref(props.sender.local)
watch(
  () => props.sender.local,
  (now) => (local.value = now),
)
const address = ref('')
watch(
  () => props.sender.replies,
  (now) => (address.value = now.includes('@') ? now : ''),
  { immediate: true },
)
function takeLocal() {
  const typed = local.value.trim()
  faults.local = localProblem(typed)
  if (!faults.local) set({ local: typed })
}
function takeAddress() {
  const typed = address.value.trim()
  faults.replies = typed ? repliesProblem(typed) : 'Write the address.'
  if (faults.replies) return
  wantsAddress.value = false
  set({ replies: typed as OwnSender['replies'] })
}

const ways = computed(() => [
  {
    value: '' as const,
    name: `as in Settings: ${props.usual.replies === 'kept' ? 'here' : 'past Satchel'}`,
  },
  { value: 'kept' as const, name: words.kept },
  { value: 'sender' as const, name: words.sender },
  { value: 'address' as const, name: 'to another address' },
])
const words = { kept: 'here, and on to the sender', sender: 'to the sender’s address' }
/** Chosen, and no address written yet. */
const wantsAddress = ref(false)
const way = computed(() =>
  wantsAddress.value || props.sender.replies.includes('@') ? 'address' : props.sender.replies,
)
function choose(value: string) {
  faults.replies = null
  wantsAddress.value = value === 'address'
  if (value !== 'address') set({ replies: value as OwnSender['replies'] })
}
const id = useId()
</script>

<template>
  <div class="grid gap-x-4">
    <FormField :id="`${id}-name`" label="Sender’s name"
      ><KeptInput
        :id="`${id}-name`"
        class="field"
        maxlength="120"
        :placeholder="usual.name"
        :value="sender.name"
        @taken="set({ name: $event.trim() })"
    /></FormField>
    <FormField :id="`${id}-local`" label="Sender’s address" :fault="faults.local"
      ><span class="flex items-center gap-1.5"
        ><input
          :id="`${id}-local`"
          v-model="local"
          class="field min-w-0"
          maxlength="64"
          :placeholder="usualLocal"
          @change="takeLocal"
        /><span class="muted whitespace-nowrap">@{{ domain }}</span></span
      ></FormField
    >
    <FormField :id="`${id}-replies`" label="Replies go"
      ><select
        :id="`${id}-replies`"
        class="field"
        :value="way"
        @change="choose(($event.target as HTMLSelectElement).value)"
      >
        <option v-for="one in ways" :key="one.value" :value="one.value">{{ one.name }}</option>
      </select></FormField
    >
    <FormField
      v-if="way === 'address'"
      :id="`${id}-to`"
      label="Address for replies"
      :fault="faults.replies"
      hint="Satchel does not see what comes to it: replied is not measured."
      ><input
        :id="`${id}-to`"
        v-model="address"
        class="field"
        type="email"
        maxlength="254"
        @change="takeAddress"
    /></FormField>
  </div>
</template>
