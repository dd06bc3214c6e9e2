<script setup lang="ts">
import { computed, ref } from 'vue'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/** Always in sight: how this folio reads and shows angles and numbers. */
const folio = useFolioStore()
const results = useResultsStore()
const open = ref(false)

const c = computed(() => folio.conventions)
const unit = computed(() => (c.value.angle === 'deg' ? 'degrees' : 'radians'))
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
    <button type="button" class="summary" :aria-expanded="open" @click="open = true">{{ short }}</button>
    <p v-if="count > 0" class="dependent" role="status">
      <span
        :title="`${count === 1 ? 'One line reads a bare number' : `${count} lines read bare numbers`} as ${unit} because of this convention.`"
        >{{ count === 1 ? '1 line' : `${count} lines` }} read in {{ unit }}</span
      >
      <button v-if="stampable" type="button" class="stamp" @click="folio.stampAll()">write it in</button>
    </p>
    <v-dialog v-model="open" aria-label="Conventions">
      <div class="sheet narrow-sheet">
        <h2>Conventions</h2>
        <ConventionChoices />
        <button type="button" class="framed-button primary" @click="open = false">Done</button>
      </div>
    </v-dialog>
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
.summary {
  display: none;
}
.dependent {
  margin: 0 0 0 auto;
  font-size: 14px;
  white-space: nowrap;
  color: var(--brass-text);
}
.stamp {
  margin-left: 8px;
  text-decoration: underline;
  text-underline-offset: 3px;
  color: var(--brass-text);
}
.narrow-sheet {
  padding: 24px;
  display: flex;
  flex-direction: column;
  gap: 16px;
}
h2 {
  font-size: 21px;
}
@media (max-width: 899px) {
  .rail {
    flex-wrap: wrap;
  }
  .wide {
    display: none;
  }
  .summary {
    display: block;
    font-size: 14px;
    min-height: 32px;
    text-decoration: underline dotted;
    text-underline-offset: 4px;
  }
  .dependent {
    margin-left: 0;
  }
}
</style>
