<script setup lang="ts">
import type { Line } from '#shared/folio'
import { useFolioStore } from '~/stores/folio'
import { useRunsStore } from '~/stores/runs'

/** What stands at the left of a row of the runs: the name of its line, which leads there, and a way out of the runs. */
defineProps<{ line: Line; name: string; part: 'vary' | 'watch' }>()
const folio = useFolioStore()
const runs = useRunsStore()
</script>

<template>
  <div class="line-head">
    <button type="button" class="name" :data-tip="`Line ${folio.indexOf(line.id) + 1}`" @click="folio.reveal(line.id)">
      {{ name }}
    </button>
    <v-btn variant="text" class="drop" :aria-label="`No longer ${part} ${name}`" @click="runs.mark(line.id, null)"
      >×</v-btn
    >
  </div>
</template>

<style scoped>
.line-head {
  display: flex;
  align-items: center;
  justify-content: space-between;
}
.name {
  max-width: 58px;
  min-height: 32px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-family: var(--mono);
  font-size: 14px;
  text-align: left;
}
.name:hover {
  text-decoration: underline;
}
.drop.v-btn {
  min-height: 24px;
  width: 24px;
  padding: 0;
  color: var(--quiet);
}
@container (max-width: 420px) {
  .line-head {
    flex-wrap: wrap;
  }
  .name {
    max-width: 100%;
    font-size: 12.5px;
    white-space: normal;
    overflow-wrap: anywhere;
  }
}
</style>
