<script setup lang="ts">
import { computed, ref } from 'vue'
import { alignTwins } from '#core/format/align'
import type { Readout } from '#core/format/readout'

/** The entries of a vector, one below the other with their places; a long one folds. */
const props = defineProps<{
  readout: Extract<Readout, { shape: 'list' }>
  letter: 'i' | 'j'
  /** The reading says the entries already: only what they come to is told. */
  said: boolean
}>()
const FOLDED = 6
const open = ref(false)
const shown = computed(() => (open.value ? props.readout.entries : props.readout.entries.slice(0, FOLDED)))
/** Both columns, aligned; an entry of one form has it in the first. */
const columns = computed(() => alignTwins(shown.value))
const twins = computed(() => shown.value.some((entry) => typeof entry !== 'string'))
const hidden = computed(() => props.readout.count - shown.value.length)
</script>

<template>
  <div class="entries">
    <table v-if="!said" :aria-label="`Vector of ${readout.count} entries`">
      <tbody>
        <tr v-for="(text, k) in columns.first" :key="k">
          <th scope="row">{{ k + 1 }}</th>
          <td><ValueText :text="text" :letter="letter" /></td>
          <td v-if="twins"><ValueText :text="columns.polar[k] ?? ''" :letter="letter" /></td>
        </tr>
      </tbody>
    </table>
    <UnitText v-if="!said" :unit="readout.unit" />
    <p v-if="readout.size" class="size">
      <span
        >length <ValueText :text="readout.size.magnitude" :letter="letter" />{{ ' ' }}<UnitText :unit="readout.unit"
      /></span>
      <span v-if="readout.size.direction">direction <ValueText :text="readout.size.direction" :letter="letter" /></span>
    </p>
    <button
      v-if="readout.entries.length > FOLDED && !said"
      type="button"
      tabindex="-1"
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
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  padding: 6px 12px 6px 28px;
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
td :deep(.value) {
  white-space: pre;
}
.size {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  margin: 0;
  font-size: 13.5px;
  color: var(--quiet);
}
.fold {
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
