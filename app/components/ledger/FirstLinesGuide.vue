<script setup lang="ts">
import { FIRST_LINES } from '~/lines/firstLines'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'

/** Below an empty folio: what can be typed, each to be tried with a click; the hand stays in the line. */
const folio = useFolioStore()
const desk = useDeskStore()
</script>

<template>
  <section class="guide" aria-label="To begin with">
    <p>Type a line and it answers as you go. Or let one of these be typed for you:</p>
    <ul>
      <li v-for="one in FIRST_LINES" :key="one.what">
        <v-btn
          variant="text"
          class="offer"
          :aria-label="`Put in ${one.what}`"
          @mousedown.prevent
          @click="folio.putInAndGoOn(one.lines)"
        >
          <span class="what">{{ one.what }}</span>
          <code>{{ one.lines[0]?.source.split('\n')[0] }}</code>
        </v-btn>
      </li>
    </ul>
    <p class="further">
      <v-btn variant="text" class="link" @click="desk.openHandbook('tour')">Five minutes with the ledger</v-btn>
      shows the rest; <kbd>?</kbd> in an empty line finds anything.
    </p>
  </section>
</template>

<style scoped>
.guide {
  margin: 12px 20px 12px 58px;
  padding-left: 16px;
  border-left: 3px double var(--brass);
  color: var(--quiet);
}
p {
  margin: 4px 0;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.v-btn.offer {
  max-width: 100%;
  justify-content: flex-start;
  padding: 2px 6px;
}
.offer :deep(.v-btn__content) {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  text-align: left;
  white-space: normal;
}
.what {
  min-width: 76px;
  font-family: var(--serif);
  font-style: italic;
}
code {
  font-family: var(--mono);
  color: var(--ink);
}
@media (max-width: 899px) {
  .guide {
    margin-left: 24px;
  }
}
.further .v-btn {
  vertical-align: baseline;
}
</style>
