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
            <ValueText :text="line.before" :letter="letter" /> <span aria-label="became">→</span>
            <ValueText :text="line.after" :letter="letter" />
          </span>
          <v-btn v-if="line.reads" variant="outlined" size="small" @click="unit.write([line.id])">
            keep as {{ from }}
          </v-btn>
          <span v-else class="follows">follows from another line</span>
        </li>
      </ol>
      <div class="answers">
        <v-btn v-if="reading.length > 1" variant="outlined" @click="unit.write(reading)">
          Keep all {{ reading.length }} as {{ from }}
        </v-btn>
        <v-btn variant="flat" color="primary" @click="done">Done</v-btn>
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
}
li {
  display: grid;
  grid-template-columns: 32px minmax(0, 1fr) minmax(0, 1fr) max-content;
  gap: 4px 12px;
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
  li {
    grid-template-columns: 32px minmax(0, 1fr);
  }
  li > :nth-child(n + 3) {
    grid-column: 2;
    justify-self: start;
  }
}
</style>
