<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Readout } from '#core/format/readout'

/** The entries of a vector, one below the other with their places; a long one folds. */
const props = defineProps<{ readout: Extract<Readout, { shape: 'list' }>; letter: 'i' | 'j' }>()
const FOLDED = 6
const open = ref(false)
const shown = computed(() => (open.value ? props.readout.entries : props.readout.entries.slice(0, FOLDED)))
const hidden = computed(() => props.readout.count - shown.value.length)
</script>

<template>
  <div class="entries">
    <table :aria-label="`Vector of ${readout.count} entries`">
      <tbody>
        <tr v-for="(entry, k) in shown" :key="k">
          <th scope="row">{{ k + 1 }}</th>
          <td v-if="typeof entry === 'string'" colspan="2"><ValueText :text="entry" :letter="letter" /></td>
          <template v-else>
            <td><ValueText :text="entry.rectangular" :letter="letter" /></td>
            <td><ValueText :text="entry.polar" :letter="letter" /></td>
          </template>
        </tr>
      </tbody>
    </table>
    <p v-if="readout.size" class="size">
      <span>length <ValueText :text="readout.size.magnitude" :letter="letter" /></span>
      <span v-if="readout.size.direction">direction <ValueText :text="readout.size.direction" :letter="letter" /></span>
    </p>
    <button
      v-if="readout.entries.length > FOLDED"
      type="button"
      class="fold"
      :aria-expanded="open"
      @click="open = !open"
    >
      {{
        open
          ? 'fold'
          : `${readout.count} entries: show ${readout.entries.length < readout.count ? `the first ${readout.entries.length}` : 'all'}`
      }}
    </button>
    <p v-if="open && hidden > 0" class="more">and {{ hidden }} more</p>
  </div>
</template>

<style scoped>
.entries {
  padding: 6px 12px 6px 30px;
}
table {
  border-collapse: collapse;
  border-inline: 1.5px solid var(--ink);
  border-radius: 6px;
}
th {
  padding: 1px 10px 1px 8px;
  font-family: var(--serif);
  font-size: 12.5px;
  font-weight: 400;
  color: var(--brass-text);
  text-align: right;
}
td {
  padding: 1px 14px 1px 0;
}
.size {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  margin: 4px 0 0;
  font-size: 13.5px;
  color: var(--quiet);
}
.fold {
  margin-top: 4px;
  font-size: 13.5px;
  color: var(--quiet);
  text-decoration: underline;
  text-underline-offset: 3px;
}
.more {
  margin: 2px 0 0;
  font-size: 13.5px;
  color: var(--quiet);
}
</style>
