<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { linesApart } from '~/lines/linesApart'
import type { Apart } from '~/lines/linesApart'
import { useDeskStore } from '~/stores/desk'
import { useExchangeStore } from '~/stores/exchange'
import { useFolioStore } from '~/stores/folio'

/** A folio that came back as a file: the lines that differ, with mine, theirs or both for each. */
const exchange = useExchangeStore()
const folio = useFolioStore()
const desk = useDeskStore()

const apart = computed<readonly Apart[]>(() =>
  exchange.returned ? linesApart(folio.lines, exchange.returned.lines) : [],
)
type Choice = 'mine' | 'theirs' | 'both'
const chosen = ref<Record<string, Choice>>({})
const choicesOf = ({ mine, theirs }: Apart): readonly (readonly [Choice, string])[] => [
  ['mine', 'Mine'],
  ['theirs', 'Theirs'],
  ...(mine !== null && theirs !== null ? [['both', 'Both'] as const] : []),
]
const choiceOf = (one: Apart): Choice => chosen.value[one.key] ?? 'mine'
watch(
  () => exchange.returned,
  () => (chosen.value = {}),
)

function take(): void {
  const theirs = apart.value.filter((one) => choiceOf(one) !== 'mine')
  folio.takeFromFile(theirs.map((one) => ({ ...one, both: choiceOf(one) === 'both' })))
  close()
}
function close(): void {
  exchange.returned = null
  desk.hide('compare')
}
</script>

<template>
  <section class="pane leaf-frame" aria-label="A folio that came back">
    <h2>Came back</h2>
    <p v-if="apart.length === 0">The file has the same lines as the folio has now: there is nothing to take.</p>
    <template v-else>
      <p>
        {{ apart.length === 1 ? 'One line differs' : `${apart.length} lines differ` }} between this folio and the file.
        Choose for each; nothing changes before you take it, and it is one step to undo.
      </p>
      <ol>
        <li v-for="one in apart" :key="one.key">
          <span class="where">{{ one.mine === null ? 'new in the file' : `line ${one.number}` }}</span>
          <code v-if="one.mine !== null"><b>mine</b> {{ one.mine }}</code>
          <code v-if="one.theirs !== null"><b>theirs</b> {{ one.theirs }}</code>
          <code v-else><b>theirs</b> <i>is not there</i></code>
          <OneOf
            :label="`Line ${one.number}`"
            :choices="choicesOf(one)"
            :value="choiceOf(one)"
            @choose="(choice: Choice) => (chosen = { ...chosen, [one.key]: choice })"
          />
        </li>
      </ol>
    </template>
    <div class="actions">
      <v-btn v-if="apart.length > 0" color="primary" variant="flat" :disabled="!folio.writable" @click="take"
        >Take what is chosen</v-btn
      >
      <v-btn @click="close">Close</v-btn>
    </div>
  </section>
</template>

<style scoped>
ol {
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  flex-direction: column;
  gap: 4px;
  padding: 8px 0;
  border-bottom: 1px solid var(--rule);
}
.where {
  color: var(--quiet);
  font-size: 14px;
}
code {
  font-family: var(--mono);
  overflow-wrap: anywhere;
}
.actions {
  display: flex;
  gap: 8px;
  margin: 12px 0;
}
</style>
