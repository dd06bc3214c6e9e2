<script setup lang="ts">
import { computed, ref } from 'vue'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'
import { useUnitStore } from '~/stores/unit'

/** Always in sight: how this folio reads and shows angles and numbers. */
const folio = useFolioStore()
const results = useResultsStore()
const desk = useDeskStore()
const unit = useUnitStore()
const changesOpen = ref(false)

const c = computed(() => folio.conventions)
const unitName = computed(() => (c.value.angle === 'deg' ? 'degrees' : 'radians'))
const short = computed(() => {
  const style = { plain: 'plain', scientific: 'scientific', engineering: 'engineering', prefix: 'prefixes' }[
    c.value.style
  ]
  return `${c.value.angle === 'deg' ? '° degrees' : 'radians'} · ${c.value.letter} · ${c.value.digits} digits · ${style}`
})
const count = computed(() => results.unitDependent.length)
const stampable = computed(() => results.unitDependent.some((id) => results.views.get(id)?.stamped))
</script>

<template>
  <section class="rail" aria-label="Conventions">
    <div class="wide"><ConventionChoices /></div>
    <v-btn variant="text" class="link summary" @click="desk.conventionsOpen = true">{{ short }}</v-btn>
    <v-btn
      variant="text"
      class="link examples"
      aria-label="Conventions, with examples"
      @click="desk.conventionsOpen = true"
    >
      examples
    </v-btn>
    <p v-if="count > 0" class="dependent" role="status">
      <span
        :title="`${count === 1 ? 'One line reads a bare number' : `${count} lines read bare numbers`} as ${unitName} because of this convention.`"
        >{{ count === 1 ? '1 line' : `${count} lines` }} <span class="wordy">read</span> in {{ unitName }}</span
      >
      <v-btn v-if="stampable" variant="text" class="link stamp" @click="unit.writeAll()">write it in</v-btn>
      <v-btn v-if="unit.changed.length > 0" variant="text" class="link stamp" @click="changesOpen = true">
        {{ unit.changed.length === 1 ? '1 line' : `${unit.changed.length} lines` }} changed with the unit
      </v-btn>
    </p>
    <UnitChanges v-model="changesOpen" />
  </section>
</template>

<style scoped>
.rail {
  display: flex;
  align-items: center;
  gap: 4px 12px;
  padding: 7px 16px;
  background: var(--rail);
  border-bottom: 1px solid var(--rule);
}
.v-btn.summary {
  display: none;
}
.dependent {
  margin: 0 0 0 auto;
  font-size: 14px;
  white-space: nowrap;
  color: var(--brass-text);
}
.v-btn.stamp {
  margin-left: 4px;
  font-size: 14px;
  color: var(--brass-text);
}
.v-btn.examples {
  font-size: 13.5px;
  color: var(--quiet);
  text-decoration-style: dotted;
}
@media (max-width: 899px) {
  .rail {
    min-height: 32px;
    padding: 0 8px;
    flex-wrap: wrap;
    gap: 0 8px;
  }
  .wide,
  .v-btn.examples {
    display: none;
  }
  .v-btn.summary {
    display: inline-grid;
    font-size: 13.5px;
    min-height: 32px;
    padding: 0 4px;
    text-decoration-style: dotted;
  }
  .dependent {
    font-size: 13px;
    white-space: normal;
  }
  .v-btn.stamp {
    min-height: 30px;
    padding: 0 4px;
    font-size: 13px;
  }
  .wordy {
    display: none;
  }
}
</style>
