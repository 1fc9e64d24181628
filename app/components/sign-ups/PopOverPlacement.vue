<script setup lang="ts">
import type { Placement } from '~~/core/sign-ups'

/** When and to whom a pop-over shows itself. */
const store = useSignUp()
const of = computed(() => store.form!.placement)
const set = (change: Partial<Placement>) => store.setForm({ placement: { ...of.value, ...change } })
const text = (event: Event) => (event.target as HTMLInputElement).value
const checked = (event: Event) => (event.target as HTMLInputElement).checked
/** A number, or null where the field is left empty. */
const number = (event: Event) => (text(event).trim() === '' ? null : Number(text(event)))
const lines = (event: Event) =>
  text(event)
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean)
</script>

<template>
  <section class="sheet" aria-label="When it shows itself">
    <div class="sheet-head">
      <h2>When it shows itself</h2>
      <span class="muted small">at the first of these that comes</span>
    </div>
    <fieldset class="grid grid-cols-2 gap-x-6 gap-y-3 p-4" :disabled="!store.canChange">
      <label class="grid gap-1"
        ><span class="muted small">Where it stands</span
        ><select
          class="field field-sm"
          :value="of.position"
          @change="set({ position: text($event) as Placement['position'] })"
        >
          <option value="corner">in a corner, beside the page</option>
          <option value="middle">in the middle, over the page</option>
          <option value="bar">as a bar at the lower edge</option>
        </select></label
      >
      <label class="grid gap-1"
        ><span class="muted small">On devices</span
        ><select
          class="field field-sm"
          :value="of.devices"
          @change="set({ devices: text($event) as Placement['devices'] })"
        >
          <option value="all">all</option>
          <option value="phones">phones</option>
          <option value="computers">tablets and computers</option>
        </select></label
      >
      <label class="grid gap-1"
        ><span class="muted small">After so many seconds</span
        ><input
          type="number"
          min="0"
          max="3600"
          class="field field-sm"
          :value="of.afterSeconds ?? ''"
          placeholder="never"
          @change="set({ afterSeconds: number($event) })"
      /></label>
      <label class="grid gap-1"
        ><span class="muted small">After so much of the page, per cent</span
        ><input
          type="number"
          min="1"
          max="100"
          class="field field-sm"
          :value="of.afterShare ?? ''"
          placeholder="never"
          @change="set({ afterShare: number($event) })"
      /></label>
      <label class="grid gap-1"
        ><span class="muted small">At a press on (a CSS selector)</span
        ><input
          class="field field-sm"
          maxlength="200"
          :value="of.onPress"
          placeholder="e.g. .ask-for-the-guide"
          @change="set({ onPress: text($event).trim() })"
      /></label>
      <label class="grid gap-1"
        ><span class="muted small">Again to who closed it, after days</span
        ><input
          type="number"
          min="1"
          max="365"
          class="field field-sm"
          :value="of.againAfterDays"
          @change="set({ againAfterDays: number($event) ?? 30 })"
      /></label>
      <label class="col-span-2 flex items-center gap-2"
        ><input
          type="checkbox"
          :checked="of.onLeaving"
          @change="set({ onLeaving: checked($event) })"
        />
        when the pointer leaves the page</label
      >
      <label class="grid gap-1"
        ><span class="muted small">Only on pages, a path each; <code>*</code> for anything</span
        ><textarea
          class="field field-sm"
          rows="2"
          :value="of.only.join('\n')"
          placeholder="everywhere"
          @change="set({ only: lines($event) })"
        />
      </label>
      <label class="grid gap-1"
        ><span class="muted small">Not on pages</span
        ><textarea
          class="field field-sm"
          rows="2"
          :value="of.not.join('\n')"
          placeholder="e.g. /shop/basket"
          @change="set({ not: lines($event) })"
        />
      </label>
      <label class="col-span-2 grid gap-1"
        ><span class="muted small"
          >Only to visitors from these sites, or with such an <code>utm_source</code>, a line
          each</span
        ><textarea
          class="field field-sm"
          rows="2"
          :value="of.from.join('\n')"
          placeholder="from anywhere"
          @change="set({ from: lines($event) })"
        />
      </label>
      <p class="muted small col-span-2">
        Never to who joined, closed it within these days (their own browser remembers it), or came
        by a link of a letter (<code>utm_medium=email</code>). One pop-over at a time.
      </p>
    </fieldset>
  </section>
</template>
