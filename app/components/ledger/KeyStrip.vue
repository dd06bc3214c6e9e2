<script setup lang="ts">
import { computed } from 'vue'
import { spokenUnit } from '#core/units/spoken'
import { unitsFor, unitSign } from '~/lines/unitChoices'

/** Signs that a plain keyboard lacks; each key shows the sign and how it is typed. */
interface StripKey {
  readonly sign: string
  readonly typed: string
  readonly name: string
  readonly insert: string
}
const KEYS: readonly StripKey[] = [
  { sign: '∠', typed: '/_', name: 'Angle of a polar form', insert: '∠' },
  { sign: '°', typed: 'deg', name: 'Degrees', insert: '°' },
  { sign: 'π', typed: 'pi', name: 'Pi', insert: 'pi' },
  { sign: '√', typed: 'sqrt', name: 'Square root', insert: 'sqrt(|)' },
  { sign: 'xⁿ', typed: '^', name: 'Power', insert: '^' },
  { sign: '|z|', typed: 'abs', name: 'Magnitude', insert: 'abs(|)' },
  { sign: 'z*', typed: '^*', name: 'Conjugate', insert: '^*' },
  { sign: '∥', typed: '||', name: 'Parallel combination', insert: ' || ' },
  { sign: '[ ]', typed: '[[ ]]', name: 'Vector or matrix', insert: '[|]' },
  { sign: '≈', typed: '~~', name: 'Check against a value', insert: ' ~~ ' },
]
const props = defineProps<{ text: string }>()
/** The units that fit what was typed last. */
const units = computed(() => unitsFor(props.text))
const gap = computed(() => (/\s$/.test(props.text) ? '' : ' '))
const emit = defineEmits<{ insert: [text: string]; grid: [] }>()
</script>

<template>
  <div class="strip" role="toolbar" aria-label="Signs">
    <button
      v-for="unit in units"
      :key="`unit ${unit}`"
      type="button"
      tabindex="-1"
      class="unit-key"
      :aria-label="`Unit ${spokenUnit(unit)}, typed ${unit}`"
      @mousedown.prevent
      @click="emit('insert', `${gap}${unit}`)"
    >
      <span class="sign">{{ unitSign(unit) }}</span>
      <span v-if="unitSign(unit) !== unit" class="typed">{{ unit }}</span>
    </button>
    <button
      v-for="k in KEYS"
      :key="k.sign"
      type="button"
      tabindex="-1"
      :aria-label="`${k.name}, typed ${k.typed}`"
      :title="k.name"
      @mousedown.prevent
      @click="emit('insert', k.insert)"
    >
      <span class="sign">{{ k.sign }}</span>
      <span class="typed">{{ k.typed }}</span>
    </button>
    <button type="button" tabindex="-1" aria-label="Fill in a grid" @mousedown.prevent @click="emit('grid')">
      <span class="sign">▦</span><span class="typed">grid</span>
    </button>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
button {
  display: inline-flex;
  align-items: baseline;
  gap: 5px;
  padding: 2px 8px;
  min-height: 28px;
  border: 1px solid var(--rule);
  border-radius: var(--corner);
  background: var(--leaf);
}
button:hover {
  border-color: var(--edge);
}
.unit-key {
  border-color: var(--brass);
  color: var(--brass-text);
}
.unit-key .sign {
  font-family: var(--sans);
}
.sign {
  font-family: var(--serif);
  font-size: 15px;
}
.typed {
  font-family: var(--mono);
  font-size: 12px;
  color: var(--quiet);
}
@media (max-width: 899px) and (pointer: coarse) {
  .strip {
    flex-wrap: nowrap;
    overflow-x: auto;
    scrollbar-width: none;
  }
  button {
    flex: none;
    min-height: 44px;
    min-width: 44px;
    justify-content: center;
    align-items: center;
  }
  .sign {
    font-size: 18px;
  }
}
</style>
