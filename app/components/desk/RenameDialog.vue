<script setup lang="ts">
import { computed } from 'vue'
import { standardName } from '#core/functions/registry'
import { nameIndex } from '~/lines/nameIndex'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/** Spelling a kept name anew in every line that has it; a clash is said before anything changes. */
const desk = useDeskStore()
const folio = useFolioStore()
const results = useResultsStore()
const open = computed({
  get: () => desk.renaming !== null,
  set: (now) => {
    if (!now) desk.renaming = null
  },
})
const where = computed(() => {
  const found = nameIndex(folio.lines, results.views).filter((e) => e.name === desk.renaming)
  const lines = [...new Set(found.flatMap((e) => [e.number, ...e.usedIn]))].sort((a, b) => a - b)
  return lines.length === 1
    ? `It stands in line ${lines[0]} only.`
    : `It stands in lines ${lines.join(', ')}. All of them change together, as one step.`
})

function refusal(name: string): string | null {
  return desk.renaming === null ? null : folio.renameName(desk.renaming, name, (word) => standardName(word) !== null)
}
</script>

<template>
  <AskDialog
    v-model="open"
    :title="`Rename ${desk.renaming ?? ''} everywhere`"
    :text="where"
    field="New name"
    :value="desk.renaming ?? ''"
    action="Rename"
    code
    :refusal="refusal"
  />
</template>
