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
  <SheetDialog v-model="open" name="Lines that changed with the unit" :title="`Read in ${now} since the switch`" wide>
    <p>
      These lines were written while bare numbers were {{ from }}. Keeping one as {{ from }} writes the unit into it, so
      that it says the same in every unit.
    </p>
    <p v-if="unit.comparing" role="status">Some lines are still being reckoned.</p>
    <p v-else-if="unit.changed.length === 0" role="status">All lines say what they said before.</p>
    <ol v-if="unit.changed.length > 0">
      <li v-for="line in unit.changed" :key="line.id">
        <span class="number">{{ line.number }}</span>
        <code>{{ line.source }}</code>
        <span class="values">
          <ValueText :text="line.before" :letter="letter" />
          <span class="became" aria-label="became">→</span>
          <ValueText :text="line.after" :letter="letter" />
        </span>
        <v-btn v-if="line.reads" size="small" @click="unit.write([line.id])"> keep as {{ from }} </v-btn>
        <span v-else class="follows">follows from another line</span>
      </li>
    </ol>
    <template #answers>
      <v-btn v-if="reading.length > 1" @click="unit.write(reading)">
        Keep all {{ reading.length }} as {{ from }}
      </v-btn>
      <v-btn color="primary" variant="flat" @click="done">Done</v-btn>
    </template>
  </SheetDialog>
</template>

<style scoped>
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
.follows {
  font-size: 13.5px;
  color: var(--quiet);
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
