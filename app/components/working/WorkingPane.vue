<script setup lang="ts">
import { mdiArrowLeft, mdiContentCopy, mdiTextBoxPlusOutline } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { nameToLatex } from '#core/notation/latex'
import { RELATION_LATEX, workingLatex, workingNote } from '#core/working/write'
import type { WorkingDepth } from '#core/working/write'
import type { Choice } from '~/components/conventions/ChoiceGroup.vue'
import { useWorking } from '~/composables/working'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { useResultsStore } from '~/stores/results'

/** The working of a line, one rule at a time; or the student's own, checked. */
const desk = useDeskStore()
const folio = useFolioStore()
const plates = usePlatesStore()
const results = useResultsStore()
const { view, missing, line, list, steps, uncovered, choose, open } = useWorking()

const number = computed(() => (line.value === null ? 0 : folio.indexOf(line.value) + 1))
const name = computed(() => (line.value === null ? null : (results.views.get(line.value)?.name ?? null)))
const head = computed(() => (line.value === null ? 'Example' : (name.value ?? `Line ${number.value}`)))
const short = computed(() => desk.workingDepth === 'short')
const choiceOf = (operation: number) => view.value?.choices.find((c) => c.operation === operation) ?? null

const DEPTHS = [
  { value: 'short', label: 'short', name: 'Short: letters, figures, result' },
  { value: 'hand', label: 'by hand', name: 'By hand: one operation after another' },
  { value: 'all', label: 'all', name: 'All: every intermediate too' },
] as const satisfies readonly Choice<WorkingDepth>[]
const MODES = [
  { value: 'steps', label: 'steps', name: 'The steps of the line' },
  { value: 'mine', label: 'check mine', name: 'Check my own working' },
] as const satisfies readonly Choice<string>[]

const rounded = computed(() => view.value?.rounded ?? false)
const latexName = computed(() => (name.value === null ? null : nameToLatex(name.value)))

async function copy(): Promise<void> {
  if (!view.value) return
  await navigator.clipboard.writeText(workingLatex(view.value, desk.workingDepth, latexName.value))
  folio.tell('Copied the working as LaTeX.')
}

function putIn(): void {
  if (!view.value || line.value === null) return
  folio.insertNoteBelow(line.value, workingNote(view.value, desk.workingDepth, latexName.value))
}

/** Steps are uncovered one by one, to try each first. */
const oneByOne = computed({
  get: () => uncovered.value !== null,
  set: (on: boolean) => (uncovered.value = on ? 1 : null),
})
const left = computed(() => (uncovered.value === null ? 0 : Math.max(0, steps.value.length - uncovered.value)))
const virtual = ref<{ scrollToIndex(k: number): void } | null>(null)
watch(uncovered, (to) => to !== null && virtual.value?.scrollToIndex(to - 1))

function backToHandbook(): void {
  desk.show('handbook')
}
</script>

<template>
  <section class="working" aria-label="Working">
    <v-btn class="plate-strip" variant="text" @click="desk.show('plates')">
      <PlateMini v-if="plates.plate.kind === 'plane'" :plate="plates.plate" />
      <CurveMini v-else :plate="plates.plate" />
      <span class="caption"
        ><b>Plate {{ plates.number }}</b> {{ plates.plate.caption }}</span
      >
    </v-btn>
    <header>
      <h2 data-begin tabindex="-1">
        <template v-if="desk.workingChecks">My working</template>
        <template v-else
          >{{ head }} <span v-if="name !== null" class="quiet">line {{ number }}</span></template
        >
      </h2>
      <v-btn v-if="line === null && desk.workingOf !== null" variant="text" @click="backToHandbook">
        <AppIcon :path="mdiArrowLeft" />Handbook
      </v-btn>
      <ChoiceGroup
        v-if="line !== null"
        label="Show"
        group="working-mode"
        :choices="MODES"
        :value="desk.workingChecks ? 'mine' : 'steps'"
        @choose="(mode) => (desk.workingChecks = mode === 'mine')"
      />
    </header>
    <ChainCheck v-if="desk.workingChecks && line !== null" :line="line" />
    <template v-else>
      <p v-if="desk.workingOf === null" class="quiet">
        Choose a line and press Ctrl+F2: here stands how its value comes about, one rule at a time.
      </p>
      <p v-else-if="missing" class="quiet">{{ missing }}</p>
      <template v-else-if="view">
        <div class="choices">
          <ChoiceGroup
            label="Depth"
            group="working-depth"
            :choices="DEPTHS"
            :value="desk.workingDepth"
            @choose="(depth) => (desk.workingDepth = depth)"
          />
          <v-checkbox v-if="!short" v-model="oneByOne" label="One at a time" />
        </div>
        <p v-if="view.point !== null" class="quiet">
          A sweep: worked at point {{ view.point
          }}{{ results.placed || view.point > 1 ? ', which is read along' : '' }}.
        </p>
        <p v-if="rounded" class="quiet">Figures are shown to {{ folio.conventions.digits }} digits and used in full.</p>
        <div v-if="short" class="short">
          <div class="math-line"><SpokenMath :latex="view.letters" /></div>
          <div v-if="view.figures !== view.letters" class="math-line">
            <SpokenMath :latex="`${RELATION_LATEX[view.putIn]}\\; ${view.figures}`" />
          </div>
          <p class="order">{{ view.order }}</p>
          <div v-if="view.result" class="math-line">
            <SpokenMath :latex="`${RELATION_LATEX[view.relation]}\\; ${view.result}`" />
          </div>
        </div>
        <p v-else-if="list.length === 0" class="quiet">The value stands as it is written: there is no step to show.</p>
        <v-virtual-scroll
          v-else
          ref="virtual"
          class="steps"
          role="list"
          aria-label="Steps"
          tabindex="0"
          :items="[...list]"
          :item-height="180"
        >
          <template #default="{ item }">
            <div role="listitem" :aria-setsize="steps.length" :aria-posinset="item.number">
              <WorkingStep
                :step="item.step"
                :number="item.number"
                :first="item.first"
                :folded="item.folded"
                :choice="choiceOf(item.step.operation)"
                @open="open(item.step.operation)"
                @choose="(way) => choose(item.step.operation, way)"
              />
            </div>
          </template>
        </v-virtual-scroll>
        <div class="buttons">
          <v-btn v-if="left > 0 && !short" color="primary" variant="flat" @click="uncovered = (uncovered ?? 0) + 1">
            Next step <span class="left">({{ left }} left)</span>
          </v-btn>
          <v-btn variant="text" @click="copy"><AppIcon :path="mdiContentCopy" />Copy as LaTeX</v-btn>
          <v-btn v-if="folio.writable && line !== null" variant="text" @click="putIn">
            <AppIcon :path="mdiTextBoxPlusOutline" />Put into the folio
          </v-btn>
        </div>
      </template>
    </template>
  </section>
</template>

<style scoped>
.working {
  display: flex;
  flex-direction: column;
  min-height: 0;
  padding: 0 4px 8px;
}
.plate-strip.v-btn {
  flex: none;
  justify-content: start;
  width: 100%;
  height: auto;
  min-height: 0;
  padding: 2px;
  line-height: 0;
  border-bottom: 1px solid var(--rule);
}
.caption {
  margin-left: 12px;
  line-height: 1.3;
  font-family: var(--serif);
  font-size: 14px;
  white-space: normal;
  text-align: left;
}
header,
.choices {
  min-height: 40px;
  display: flex;
  flex: none;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 16px;
}
header {
  padding-top: 8px;
}
h2:focus {
  outline: none;
}
h2 {
  margin-right: auto;
  font-size: 18px;
}
.quiet {
  flex: none;
  margin: 2px 0;
  font-size: 14px;
  font-weight: 400;
  color: var(--quiet);
}
.steps {
  flex: 1;
  min-height: 0;
  border-top: 3px double var(--brass);
}
.short {
  flex: 1;
  overflow: auto;
  padding-top: 8px;
  border-top: 3px double var(--brass);
}
.math-line {
  overflow-x: auto;
  overflow-y: hidden;
  padding: 6px 0;
}
.order {
  margin: 4px 0;
  color: var(--quiet);
}
.buttons {
  display: flex;
  flex: none;
  flex-wrap: wrap;
  gap: 4px 8px;
  padding-top: 8px;
}
.left {
  margin-left: 6px;
  font-weight: 400;
}
@media (max-width: 899px) {
  .plate-strip.v-btn {
    display: none;
  }
}
</style>
