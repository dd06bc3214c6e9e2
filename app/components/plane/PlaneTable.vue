<script setup lang="ts">
import { computed } from 'vue'
import type { PlaneMark } from '#core/scene/scene'
import { useFolioStore } from '~/stores/folio'
import { SPOKEN } from '~/texts/planeSummary'

/**
 * The values of a plane as a table, for those who cannot see the picture and
 * whoever wants the numbers. While it is closed it is there for screen readers,
 * with as many values as the picture's summary tells: thousands of unseen rows
 * would be laid out anew with every key that is typed.
 */
const props = defineProps<{ marks: readonly PlaneMark[]; open: boolean; number: number }>()
const folio = useFolioStore()
const rows = computed(() => (props.open ? props.marks : props.marks.slice(0, SPOKEN)))
</script>

<template>
  <div
    :class="open ? 'values' : 'visually-hidden'"
    :tabindex="open ? 0 : undefined"
    role="group"
    :aria-label="`Table of plate ${number}`"
  >
    <v-table :aria-label="`Values on plate ${number}`">
      <thead>
        <tr>
          <th scope="col">Name</th>
          <th scope="col">Rectangular</th>
          <th scope="col">Polar</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="mark in rows"
          :key="mark.id"
          v-memo="[mark.label, mark.ink.hue, mark.rectangular, mark.polar, folio.conventions.letter]"
        >
          <th scope="row" :style="{ color: `var(--hue-${mark.ink.hue + 1})` }">{{ mark.label }}</th>
          <td><ValueText :text="mark.rectangular" :letter="folio.conventions.letter" /></td>
          <td><ValueText :text="mark.polar" :letter="folio.conventions.letter" /></td>
        </tr>
      </tbody>
    </v-table>
  </div>
</template>

<style scoped>
.values {
  margin-top: 8px;
  max-height: 220px;
  overflow: auto;
  flex: none;
}
.v-table {
  width: 100%;
  border-collapse: collapse;
  font-size: 14px;
}
th,
td {
  text-align: left;
  padding: 3px 16px 3px 4px;
  border-bottom: 1px solid var(--rule);
  white-space: nowrap;
}
thead th {
  font-family: var(--serif);
  font-style: italic;
  font-weight: 400;
  color: var(--quiet);
}
tbody th {
  font-family: var(--serif);
  font-style: italic;
}
</style>
