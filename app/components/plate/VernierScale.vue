<script setup lang="ts">
import { mdiCheck, mdiChevronLeft, mdiChevronRight, mdiRestore } from '@mdi/js'
import { computed, nextTick, ref, watch } from 'vue'
import { niceStep, ticksBetween } from '#core/scene/ticks'
import { textIn } from '~/browser/fields'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'
import { useVernierStore } from '~/stores/vernier'

/** The number that is in hand, on an engraved scale: plates and ledger follow it. */
const vernier = useVernierStore()
const folio = useFolioStore()
const results = useResultsStore()

// Taken in hand it is under the keys.
const scale = ref<HTMLElement | null>(null)
watch(
  () => vernier.held?.line,
  async (line) => {
    if (line === undefined) return
    await nextTick()
    scale.value?.querySelector<HTMLElement>('.v-slider-thumb')?.focus({ preventScroll: true })
  },
  { immediate: true },
)

const WIDTH = 1000
/** About so many engraved numbers. */
const NUMBERS = 6

const share = (x: number): number => ((x - vernier.low) / (vernier.high - vernier.low)) * WIDTH
const long = computed(() => niceStep((vernier.high - vernier.low) / NUMBERS))
const numbers = computed(() => ticksBetween(vernier.low, vernier.high, long.value))
const ticks = computed(() => ticksBetween(vernier.low, vernier.high, long.value / 10).slice(0, 200))
const short = (x: number): string => String(Number(x.toPrecision(6))).replace('-', '−')
const several = computed(() => (results.views.get(vernier.held?.line ?? '')?.numbers.length ?? 0) > 1)
const number = computed(() => folio.indexOf(vernier.held?.line ?? '') + 1)

const pieces = computed(() => {
  const { from, to } = vernier.span
  return [vernier.text.slice(0, from), vernier.text.slice(from, to), vernier.text.slice(to)] as const
})

function key(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return
  const by = event.key === 'ArrowRight' || event.key === 'ArrowUp' ? 1 : event.key === 'ArrowLeft' || event.key === 'ArrowDown' ? -1 : 0 // prettier-ignore
  if (by !== 0) vernier.nudge(event.shiftKey ? 10 * by : by)
  else if (event.key === 'Enter') vernier.letGo()
  else if (event.key === 'Escape') vernier.restore()
  else return
  event.preventDefault()
  event.stopPropagation()
}

/** In a field of the range Escape and Enter are those of the scale; arrows are the field's. */
function fieldKey(event: KeyboardEvent): void {
  if (event.key !== 'Escape') return
  event.stopPropagation()
  vernier.restore()
}

function set(side: 'low' | 'high' | 'step', event: Event): void {
  const set = vernier.set({ [side]: Number(textIn(event).replace('−', '-')) })
  if (!set) folio.tell('A range goes from the smaller number to the larger one, in steps above 0.')
}
</script>

<template>
  <section v-if="vernier.held" class="vernier" :aria-label="`Vernier: a number of line ${number} in hand`">
    <p class="entry">
      <span class="line">{{ number }}</span>
      <code
        >{{ pieces[0] }}<u>{{ pieces[1] }}</u
        >{{ pieces[2] }}</code
      >
      <span class="buttons">
        <template v-if="several">
          <v-btn variant="text" aria-label="The number before" @click="vernier.another(-1)">
            <AppIcon :path="mdiChevronLeft" />
          </v-btn>
          <v-btn variant="text" aria-label="The next number" @click="vernier.another(1)">
            <AppIcon :path="mdiChevronRight" />
          </v-btn>
        </template>
        <v-btn variant="text" data-tip="As it was (Esc)" aria-label="As it was" @click="vernier.restore()">
          <AppIcon :path="mdiRestore" />
        </v-btn>
        <v-btn variant="text" data-tip="Let go (Enter)" aria-label="Let go" @click="vernier.letGo()">
          <AppIcon :path="mdiCheck" />
        </v-btn>
      </span>
    </p>
    <div ref="scale" class="scale" @keydown.capture="key">
      <svg :viewBox="`0 0 ${WIDTH} 40`" preserveAspectRatio="none" aria-hidden="true">
        <line v-for="at in ticks" :key="`t${at}`" :x1="share(at)" :x2="share(at)" y1="16" y2="25" />
        <line v-for="at in numbers" :key="`n${at}`" class="long" :x1="share(at)" :x2="share(at)" y1="10" y2="25" />
      </svg>
      <span v-for="at in numbers" :key="at" class="number" :style="{ left: `${share(at) / 10}%` }" aria-hidden="true">{{
        short(at)
      }}</span>
      <v-slider
        :model-value="vernier.value"
        :min="Math.min(vernier.low, vernier.value)"
        :max="Math.max(vernier.high, vernier.value)"
        :step="vernier.step"
        hide-details
        color="secondary"
        :aria-label="`The number in hand`"
        @update:model-value="(to: number) => vernier.slide(to)"
        @end="vernier.settle()"
      />
    </div>
    <p class="range" @keydown="fieldKey">
      <v-text-field label="from" :model-value="short(vernier.low)" @change="(e: Event) => set('low', e)" />
      <v-text-field label="to" :model-value="short(vernier.high)" @change="(e: Event) => set('high', e)" />
      <v-text-field label="step" :model-value="short(vernier.step)" @change="(e: Event) => set('step', e)" />
    </p>
  </section>
</template>

<style scoped>
.vernier {
  flex: none;
  margin-top: 8px;
  padding: 4px 12px 8px;
  border-top: 3px double var(--brass);
  background: var(--leaf);
}
.entry {
  display: flex;
  align-items: center;
  gap: 8px;
  margin: 0;
}
.entry .line {
  font-family: var(--serif);
  color: var(--brass-text);
}
.entry code {
  flex: 1;
  min-width: 0;
  overflow-x: auto;
  white-space: nowrap;
  scrollbar-width: thin;
}
.entry u {
  text-decoration: underline 2px var(--brass);
  text-underline-offset: 4px;
  font-weight: 700;
}
.buttons {
  display: flex;
  flex: none;
}
.buttons .v-btn {
  min-width: 32px;
  padding: 4px 6px;
}
.scale {
  position: relative;
  height: 40px;
  margin: 0 8px;
}
.scale > svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 40px;
}
.scale > svg line {
  stroke: var(--edge);
  stroke-width: 1;
  vector-effect: non-scaling-stroke;
}
.scale > svg line.long {
  stroke: var(--ink);
}
.number {
  position: absolute;
  bottom: -3px;
  transform: translateX(-50%);
  font-family: var(--serif);
  font-size: 12px;
  font-feature-settings: 'tnum';
  color: var(--quiet);
}
.scale :deep(.v-slider) {
  position: absolute;
  inset: -4px 0 auto;
  margin: 0;
}
.scale :deep(.v-slider-track__background),
.scale :deep(.v-slider-track__fill) {
  height: 1px !important;
  opacity: 0.5;
}
.range {
  display: flex;
  gap: 8px;
  margin: 8px 0 0;
}
</style>
