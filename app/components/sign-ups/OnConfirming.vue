<script setup lang="ts">
/** What is set and started for everybody who confirms: tags, values of fields, a sequence. */
const store = useSignUp()
const form = computed(() => store.form!)
const of = computed(() => store.signUp!)
function tag(name: string, on: boolean) {
  const others = form.value.tags.filter((one) => one !== name)
  store.setForm({ tags: on ? [...others, name] : others })
}
const newTag = ref('')
function addTag() {
  const name = newTag.value.trim()
  if (name) tag(name, true)
  newTag.value = ''
}
const otherTags = computed(() => of.value.tags.filter((name) => !form.value.tags.includes(name)))
const free = computed(() =>
  of.value.fields.filter(({ key }) => form.value.values.every(({ field }) => field !== key)),
)
const fieldName = (key: string) => of.value.fields.find((one) => one.key === key)?.name ?? key
const setValue = (field: string, value: string) =>
  store.setForm({
    values: form.value.values.map((one) => (one.field === field ? { field, value } : one)),
  })
function addValue(event: Event) {
  const select = event.target as HTMLSelectElement
  const field = select.value
  select.value = ''
  if (field) store.setForm({ values: [...form.value.values, { field, value: '' }] })
}
const text = (event: Event) => (event.target as HTMLInputElement).value
</script>

<template>
  <section class="sheet" aria-label="For everybody who confirms">
    <div class="sheet-head">
      <h2>For everybody who confirms</h2>
      <span class="muted small">what they enter themselves goes before it</span>
    </div>
    <fieldset class="grid gap-4 p-4" :disabled="!store.canChange">
      <div class="grid gap-2">
        <h3 class="font-[560]">Tags</h3>
        <div v-if="form.tags.length" class="flex flex-wrap gap-1.5">
          <button
            v-for="name in form.tags"
            :key="name"
            type="button"
            class="chip"
            :aria-label="`Remove the tag ${name}`"
            @click="tag(name, false)"
          >
            {{ name }} ×
          </button>
        </div>
        <form class="flex gap-2" @submit.prevent="addTag">
          <input
            v-model="newTag"
            class="field field-sm w-56"
            aria-label="Another tag"
            placeholder="another tag"
            maxlength="60"
            list="sign-up-tags"
          /><button class="btn btn-sm" :disabled="!newTag.trim()">Add</button>
          <datalist id="sign-up-tags">
            <option v-for="name in otherTags" :key="name" :value="name" />
          </datalist>
        </form>
      </div>
      <div class="grid gap-2">
        <h3 class="font-[560]">Field values</h3>
        <div
          v-for="one in form.values"
          :key="one.field"
          class="grid grid-cols-[160px_minmax(0,1fr)_auto] items-center gap-2.5"
        >
          <span class="truncate">{{ fieldName(one.field) }}</span><KeptInput
            class="field field-sm"
            :value="one.value"
            maxlength="300"
            :aria-label="`Value of ${fieldName(one.field)}`"
            @taken="setValue(one.field, $event)"
          /><button
            type="button"
            class="link small"
            :aria-label="`Remove the value of ${fieldName(one.field)}`"
            @click="
              store.setForm({ values: form.values.filter(({ field }) => field !== one.field) })
            "
          >
            Remove
          </button>
        </div>
        <select
          v-if="free.length"
          class="field field-sm w-56"
          aria-label="Set another field"
          @change="addValue"
        >
          <option value="">Set a field…</option>
          <option v-for="one in free" :key="one.key" :value="one.key">{{ one.name }}</option>
        </select>
      </div>
      <label class="grid gap-2"
        ><span class="font-[560]">Sequence</span
        ><select
          class="field field-sm w-72"
          :value="form.sequenceId ?? ''"
          @change="store.setForm({ sequenceId: text($event) === '' ? null : Number(text($event)) })"
        >
          <option value="">none</option>
          <option v-for="one in of.sequences" :key="one.id" :value="one.id">
            {{ one.name }}
          </option></select
        ><span class="muted small"
          >A sequence that begins when somebody joins its list does so for who joins it by this
          form, in any case.</span
        ></label
      >
    </fieldset>
  </section>
</template>
