<script setup lang="ts">
/** Puts people on a list or takes them off it, by hand: the reason is kept as evidence. */
const props = defineProps<{ lists: { id: number; name: string }[] }>()
const emit = defineEmits<{
  close: []
  done: [body: { act: 'list' | 'unlist'; listId: number; reason: string }]
}>()
const listId = ref(props.lists[0]?.id ?? 0)
const act = ref<'list' | 'unlist'>('list')
const reason = ref('')
</script>

<template>
  <BaseDialog open title="Change a subscription by hand" @close="emit('close')">
    <form
      id="subscription-form"
      class="space-y-3"
      @submit.prevent="reason.trim() && emit('done', { act, listId, reason: reason.trim() })"
    >
      <div class="flex gap-2">
        <select v-model="act" class="field" aria-label="What to do">
          <option value="list">Put on</option>
          <option value="unlist">Unsubscribe</option>
        </select>
        <select v-model="listId" class="field" aria-label="List">
          <option v-for="list in lists" :key="list.id" :value="list.id">{{ list.name }}</option>
        </select>
      </div>
      <div>
        <label for="why-list" class="muted">{{
          act === 'list' ? 'Why they may be mailed' : 'Why'
        }}</label>
        <input
          id="why-list"
          v-model="reason"
          class="field mt-1"
          maxlength="300"
          placeholder="asked at the festival desk, 22 November"
        />
      </div>
      <p class="muted small">
        The reason is kept as evidence of this change. Who is suppressed is left out.
      </p>
    </form>
    <template #actions>
      <button type="button" class="btn" @click="emit('close')">Cancel</button>
      <button form="subscription-form" class="btn btn-go" :disabled="!reason.trim() || !listId">
        Change
      </button>
    </template>
  </BaseDialog>
</template>
