<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ChoiceView, EntryView, StepView } from '#core/working/view'
import { RELATION_LATEX } from '#core/working/write'
import { useDeskStore } from '~/stores/desk'

/** One step: the rule, what stood with the term that is dealt with, and what stands then. */
const props = defineProps<{
  step: StepView
  number: number
  /** It begins an operation: what stands before is shown, and the rule with its formula. */
  first: boolean
  folded: boolean
  choice: ChoiceView | null
}>()
const emit = defineEmits<{ open: []; choose: [way: string] }>()
const desk = useDeskStore()

const then = computed(() => `${RELATION_LATEX[props.step.relation]}\\; ${props.step.then}`)

/** The entry of a product whose way is shown. */
const chosen = ref(0)
const entry = computed<EntryView | null>(() => props.step.entries[chosen.value] ?? props.step.entries[0] ?? null)
const entries = computed(() => props.step.entries.map((e, k) => ({ value: k, title: `row ${e.row}, column ${e.col}` })))

function toBench(): void {
  if (props.step.bench) desk.putOnBench(props.step.bench)
}
</script>

<template>
  <div class="step">
    <span class="number" aria-hidden="true">{{ number }}</span>
    <div class="body">
      <p class="rule">
        {{ step.text }}
        <span v-if="first && step.formula" class="formula"><SpokenMath :latex="step.formula" /></span>
      </p>
      <p v-if="step.says" class="says">{{ step.says }}</p>
      <ChoiceGroup
        v-if="choice && first"
        class="ways"
        label="Done"
        :group="`way-${choice.operation}`"
        :choices="choice.ways.map((way) => ({ value: way, label: way, name: `Done: ${way}` }))"
        :value="choice.way"
        @choose="(way) => emit('choose', way)"
      />
      <div v-if="first" class="now"><SpokenMath :latex="step.before" /></div>
      <div class="then"><SpokenMath :latex="then" /></div>
      <div v-if="entry" class="entry">
        <v-select
          v-if="entries.length > 1"
          v-model="chosen"
          :items="entries"
          label="One entry"
          density="compact"
          :aria-label="`The entry of step ${number} that is written out`"
        />
        <div class="then"><SpokenMath :latex="entry.latex" /></div>
      </div>
      <p v-if="step.trap" class="trap">
        With the figures as they are shown one would get <SpokenMath :latex="step.trap" />: keep all figures until the
        end.
      </p>
      <div v-if="folded || step.bench" class="more">
        <v-btn v-if="folded" variant="text" class="link" @click="emit('open')">Every intermediate of this step</v-btn>
        <v-btn v-if="step.bench" variant="text" class="link" @click="toBench">Reduce it on the bench</v-btn>
      </div>
    </div>
  </div>
</template>

<style scoped>
.step {
  display: flex;
  gap: 12px;
  padding: 10px 4px 10px 0;
  border-bottom: 1px solid var(--rule);
}
.number {
  flex: none;
  width: 28px;
  text-align: right;
  font-family: var(--serif);
  font-weight: 600;
  color: var(--brass-text);
}
.body {
  flex: 1;
  min-width: 0;
}
.rule,
.says,
.trap {
  margin: 0;
}
.rule {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 16px;
}
.formula {
  color: var(--quiet);
  font-size: 14px;
}
.says {
  font-size: 14.5px;
  font-style: italic;
  color: var(--quiet);
}
.now,
.then {
  overflow-x: auto;
  overflow-y: hidden;
  padding: 4px 0;
}
.then {
  padding-left: 16px;
}
.trap {
  margin-top: 4px;
  padding: 2px 8px;
  font-size: 14px;
  border-left: 3px solid var(--brass);
}
.entry {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  padding-left: 16px;
}
.entry .v-select {
  flex: none;
  width: 190px;
}
.ways {
  margin: 4px 0;
}
.more {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
}
.link {
  padding: 0 4px;
  font-size: 14px;
  color: var(--teal);
}
.body :deep(.dealt) {
  padding: 2px 1px;
  background: var(--select);
  box-shadow: inset 0 -2px 0 var(--brass);
}
</style>
