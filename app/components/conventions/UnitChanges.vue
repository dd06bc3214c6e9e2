<script setup lang="ts">
import { useFolioStore } from '~/stores/folio'
import { useUnitStore } from '~/stores/unit'
import { computed } from 'vue'

/** After the unit was switched: each line that says something else now, and the way to keep what it said. */
const open = defineModel<boolean>({ required: true })
const folio = useFolioStore()
const unit = useUnitStore()
const from = computed(() => (unit.switched?.from === 'rad' ? 'radians' : 'degrees'))
const now = computed(() => (folio.conventions.angle === 'rad' ? 'radians' : 'degrees'))
const reading = computed(() => unit.changed.filter((line) => line.reads).map((line) => line.id))
const letter = computed(() => folio.conventions.letter)

function done(): void {
  open.value = false
  unit.dismiss()
}
</script>

<template>
  <v-dialog v-model="open" aria-label="Lines that changed with the unit" max-width="720">
    <div class="sheet changes">
      <h2>Read in {{ now }} since the switch</h2>
      <p>
        These lines were written while bare numbers were {{ from }}. Keeping one as {{ from }} writes the unit into it,
        so that it says the same in every unit.
      </p>
      <p v-if="unit.changed.length === 0" role="status">All lines say what they said before.</p>
      <ol v-else>
        <li v-for="line in unit.changed" :key="line.id">
          <span class="number">{{ line.number }}</span>
          <code>{{ line.source }}</code>
          <span class="values">
            <ValueText :text="line.before" :letter="letter" />
            <span class="became" aria-label="became">→</span>
            <ValueText :text="line.after" :letter="letter" />
          </span>
          <button v-if="line.reads" type="button" class="framed-button small" @click="unit.write([line.id])">
            keep as {{ from }}
          </button>
          <span v-else class="follows">follows from another line</span>
        </li>
      </ol>
      <div class="answers">
        <button v-if="reading.length > 1" type="button" class="framed-button" @click="unit.write(reading)">
          Keep all {{ reading.length }} as {{ from }}
        </button>
        <button type="button" class="framed-button primary" @click="done">Done</button>
      </div>
    </div>
  </v-dialog>
</template>

<style scoped>
.changes {
  padding: 24px;
  display: flex;
  flex-direction: column;
  gap: 14px;
  max-height: 88vh;
  overflow: auto;
}
h2 {
  font-size: 21px;
}
p {
  margin: 0;
  color: var(--quiet);
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: 32px minmax(0, 2fr) minmax(0, 3fr) max-content;
  gap: 0 12px;
}
li {
  display: grid;
  grid-column: 1 / -1;
  grid-template-columns: subgrid;
  align-items: center;
  padding: 8px 0;
  border-top: 1px solid var(--rule);
}
.number {
  color: var(--quiet);
}
code {
  font-family: var(--mono);
  font-size: 14px;
  overflow-wrap: anywhere;
}
.values {
  font-family: var(--mono);
  font-size: 14px;
  overflow-wrap: anywhere;
}
.values :deep(*) {
  white-space: normal;
  overflow-wrap: anywhere;
}
.became {
  padding: 0 0.4em;
}
.small {
  min-height: 32px;
  padding: 0 12px;
  font-size: 14px;
  justify-content: center;
}
.follows {
  font-size: 13.5px;
  color: var(--quiet);
}
.answers {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 10px;
}
@media (max-width: 599px) {
  ol {
    grid-template-columns: 32px minmax(0, 1fr);
  }
  li > :nth-child(n + 3) {
    grid-column: 2;
    justify-self: start;
  }
}
</style>
