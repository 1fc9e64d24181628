<script setup lang="ts">
import { JOINED, mailedWays, startKinds, type MailedStart, type Starting } from '~~/core/sequences'

/** One way of coming in: what somebody newly does, or a date of theirs. */
defineProps<{ start: Starting }>()
const emit = defineEmits<{ change: [start: Starting]; remove: [] }>()
const store = useSequence()
const of = computed(() => store.sequence!)
const dates = computed(() => of.value.fields.filter(({ kind }) => kind === 'date'))
/** Names are no fields that are noted. */
const ownFields = computed(() =>
  of.value.fields.filter(({ key }) => key !== 'first_name' && key !== 'last_name'),
)
const value = (event: Event) => (event.target as HTMLSelectElement).value
const QUARTER = 90 * 24 * 60 * 60_000
</script>

<template>
  <div class="grid gap-1.5">
    <span class="flex items-center justify-between gap-2"
      ><b class="small font-semibold">{{ startKinds[start.is].name }}</b>
      <button
        type="button"
        class="btn btn-sm"
        :aria-label="`Remove: ${startKinds[start.is].name}`"
        @click="emit('remove')"
      >
        Remove
      </button></span
    >
    <select
      v-if="start.is === 'joined'"
      class="field field-sm"
      aria-label="By which sign-up"
      :value="start.signUpId ?? ''"
      @change="emit('change', { ...start, signUpId: Number(value($event)) || null })"
    >
      <option value="">by any way</option>
      <option v-for="form in of.signUps" :key="form.id" :value="form.id">
        by “{{ form.name }}”
      </option>
    </select>
    <template v-else-if="start.is === 'event'">
      <EventPick
        label="Which event starts it"
        :name="start.name"
        @change="emit('change', { ...start, name: $event })"
      />
      <CarriedPick :where="start.where" @change="emit('change', { ...start, where: $event })" />
    </template>
    <template v-else-if="start.is === 'tag'">
      <select
        class="field field-sm"
        aria-label="Gets or loses"
        :value="start.gets ? 'gets' : 'loses'"
        @change="emit('change', { ...start, gets: value($event) === 'gets' })"
      >
        <option value="gets">gets the tag</option>
        <option value="loses">loses the tag</option>
      </select>
      <select
        class="field field-sm"
        aria-label="Which tag starts it"
        :value="start.tagId || ''"
        @change="emit('change', { ...start, tagId: Number(value($event)) })"
      >
        <option value="">{{ of.tags.length ? 'choose a tag' : 'no tag is on file yet' }}</option>
        <option v-for="tag in of.tags" :key="tag.id" :value="tag.id">{{ tag.name }}</option>
      </select>
    </template>
    <template v-else-if="start.is === 'field'">
      <select
        class="field field-sm"
        aria-label="Which field starts it"
        :value="start.field"
        @change="emit('change', { is: 'field', field: value($event), to: null })"
      >
        <option v-if="!start.field" value="">choose a field</option>
        <option v-for="field in ownFields" :key="field.key" :value="field.key">
          {{ field.name }}
        </option>
      </select>
      <KeptInput
        v-if="start.field"
        class="field field-sm"
        aria-label="To the value"
        placeholder="to whatever value"
        maxlength="1000"
        :value="start.to ?? ''"
        @taken="emit('change', { ...start, to: $event.trim() || null })"
      />
    </template>
    <template v-else-if="start.is === 'mailed'">
      <select
        class="field field-sm"
        aria-label="Which mailing starts it"
        :value="start.mailingId || ''"
        @change="emit('change', { ...start, mailingId: Number(value($event)) })"
      >
        <option value="">choose a mailing</option>
        <option v-for="one in of.otherMailings" :key="one.id" :value="one.id">
          {{ one.name }}
        </option>
      </select>
      <select
        class="field field-sm"
        aria-label="What they do with it"
        :value="start.did"
        @change="emit('change', { ...start, did: value($event) as MailedStart['did'] })"
      >
        <option v-for="(words, did) in mailedWays" :key="did" :value="did">{{ words }}</option>
      </select>
      <LengthField
        v-if="start.did === 'not opened'"
        label="Within"
        :ms="start.within"
        :most="QUARTER"
        @change="emit('change', { ...start, within: Math.max(3_600_000, $event) })"
      />
    </template>
    <StartMoment
      v-else-if="start.is === 'moment'"
      :start="start"
      @change="emit('change', $event)"
    />
    <span v-else-if="start.is === 'api'" class="muted small"
      >A program says who: POST /api/v1/sequences with this sequence’s number, {{ of.id }}.</span
    >
    <label v-else-if="start.is === 'ordered'" class="flex items-center gap-2"
      ><input
        type="checkbox"
        :checked="start.first"
        @change="emit('change', { ...start, first: ($event.target as HTMLInputElement).checked })"
      />
      their first order alone</label
    >
    <template v-else-if="start.is === 'left behind'">
      <EventPick
        label="Which event is left behind"
        :name="start.name"
        @change="emit('change', { ...start, name: $event })"
      />
      <span class="muted small">and then, within</span>
      <LengthField
        label="Within"
        :ms="start.within"
        :most="QUARTER"
        @change="emit('change', { ...start, within: Math.max(300_000, $event) })"
      />
      <EventPick
        label="What does not follow"
        none="no order follows"
        :name="start.unless ?? ''"
        @change="emit('change', { ...start, unless: $event || null })"
      />
    </template>
    <template v-else-if="start.is === 'segment'">
      <select
        class="field field-sm"
        aria-label="Comes or leaves"
        :value="start.comes ? 'comes' : 'leaves'"
        @change="emit('change', { ...start, comes: value($event) === 'comes' })"
      >
        <option value="comes">comes into</option>
        <option value="leaves">leaves</option>
      </select>
      <select
        class="field field-sm"
        aria-label="Which segment starts it"
        :value="start.segmentId || ''"
        @change="emit('change', { ...start, segmentId: Number(value($event)) })"
      >
        <option value="">choose a segment</option>
        <option v-for="one in of.segments" :key="one.id" :value="one.id">{{ one.name }}</option>
      </select>
      <span class="muted small">Looked at once a day. Who is in it already did not come.</span>
    </template>
    <template v-else>
      <select
        class="field field-sm"
        aria-label="Which date"
        :value="start.of"
        @change="emit('change', { ...start, of: value($event) })"
      >
        <option v-if="!start.of" value="">choose a date</option>
        <option v-for="field in dates" :key="field.key" :value="field.key">{{ field.name }}</option>
        <option :value="JOINED">the day they joined</option>
      </select>
      <DaysAround :days="start.days" @change="emit('change', { ...start, days: $event })" />
      <HourOfDay :hour="start.hour" @change="emit('change', { ...start, hour: $event })" />
      <label class="flex items-center gap-2"
        ><input
          type="checkbox"
          :checked="start.yearly"
          @change="
            emit('change', { ...start, yearly: ($event.target as HTMLInputElement).checked })
          "
        />
        every year</label
      >
    </template>
  </div>
</template>
