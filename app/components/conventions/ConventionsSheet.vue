<script setup lang="ts">
import { computed } from 'vue'
import type { Conventions } from '#core/format/conventions'
import { sampleValues } from '#core/format/samples'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { usePreferencesStore } from '~/stores/preferences'
import { formatNumber, formatPolar } from '#core/format/number'

/** Every convention with what each choice does, shown on values of our own. */
const desk = useDeskStore()
const folio = useFolioStore()
const preferences = usePreferencesStore()
const c = computed(() => folio.conventions)

interface Choice {
  readonly name: string
  readonly change: Partial<Conventions>
  readonly example: string
}
const SAMPLES = sampleValues()
const shown = (change: Partial<Conventions>, value: keyof typeof SAMPLES): string =>
  formatNumber(SAMPLES[value], { ...c.value, ...change })

const groups = computed<
  readonly { readonly title: string; readonly what: string; readonly choices: readonly Choice[] }[]
>(() => {
  const choice = (name: string, change: Partial<Conventions>, example: string): Choice => ({ name, change, example })
  const polar = (change: Partial<Conventions>): string => formatPolar(SAMPLES.phasor, { ...c.value, ...change })
  return [
    {
      title: 'Angles',
      what: 'The unit of a bare number where an angle is needed, and of every angle shown.',
      choices: [
        choice(
          'degrees',
          { angle: 'deg', degrees: 'decimal' },
          `${polar({ angle: 'deg', degrees: 'decimal' })} · sin(30) is sin(30°)`,
        ),
        choice(
          'degrees, minutes, seconds',
          { angle: 'deg', degrees: 'minutes' },
          polar({ angle: 'deg', degrees: 'minutes' }),
        ),
        choice('radians', { angle: 'rad' }, `${polar({ angle: 'rad' })} · sin(30) is sin(30 rad)`),
      ],
    },
    {
      title: 'Imaginary letter',
      what: 'The letter of the imaginary unit. It cannot be a name; the other letter can.',
      choices: [
        choice('j', { letter: 'j' }, shown({ letter: 'j' }, 'phasor')),
        choice('i', { letter: 'i' }, shown({ letter: 'i' }, 'phasor')),
      ],
    },
    {
      title: 'Its place',
      what: 'Before or behind the number. Both are read, whatever is shown.',
      choices: [
        choice('before', { place: 'before' }, shown({ place: 'before' }, 'phasor')),
        choice('behind', { place: 'after' }, shown({ place: 'after' }, 'phasor')),
      ],
    },
    {
      title: 'Number style',
      what: 'How long and short numbers are written.',
      choices: [
        choice('plain', { style: 'plain' }, shown({ style: 'plain' }, 'long')),
        choice('scientific', { style: 'scientific' }, shown({ style: 'scientific' }, 'long')),
        choice('engineering', { style: 'engineering' }, shown({ style: 'engineering' }, 'long')),
        choice('with prefixes', { style: 'prefix' }, shown({ style: 'prefix' }, 'long')),
      ],
    },
    {
      title: 'Exact values',
      what: 'How exact values that are no whole numbers are written.',
      choices: [
        choice('decimals', { exact: 'decimal' }, shown({ exact: 'decimal' }, 'third')),
        choice('fractions', { exact: 'fraction' }, shown({ exact: 'fraction' }, 'third')),
        choice('mixed numbers', { exact: 'mixed' }, shown({ exact: 'mixed' }, 'third')),
      ],
    },
  ]
})

function isOn(change: Partial<Conventions>): boolean {
  return Object.entries(change).every(([key, value]) => c.value[key as keyof Conventions] === value)
}
const isDefault = computed(() => JSON.stringify(preferences.defaults) === JSON.stringify(c.value))
</script>

<template>
  <v-dialog v-model="desk.conventionsOpen" aria-label="Conventions" max-width="720">
    <div class="sheet conventions">
      <h2>Conventions of this folio</h2>
      <fieldset v-for="group in groups" :key="group.title">
        <legend>{{ group.title }}</legend>
        <p>{{ group.what }}</p>
        <label v-for="item in group.choices" :key="item.name" :class="{ on: isOn(item.change) }">
          <input
            type="radio"
            :name="`convention ${group.title}`"
            :checked="isOn(item.change)"
            @change="folio.convene(item.change)"
          />
          <span class="name">{{ item.name }}</span>
          <span class="example"><ValueText :text="item.example" :letter="item.change.letter ?? c.letter" /></span>
        </label>
      </fieldset>
      <fieldset>
        <legend>Digits</legend>
        <p>Significant digits shown, 2 to 16. What is stored always has them all.</p>
        <div class="digits">
          <DigitStepper :value="c.digits" @choose="(digits) => folio.convene({ digits })" />
          <span class="example"><ValueText :text="shown({}, 'root')" :letter="c.letter" /></span>
        </div>
      </fieldset>
      <div class="answers">
        <button type="button" class="framed-button" :disabled="isDefault" @click="preferences.defaults = { ...c }">
          {{ isDefault ? 'New folios begin like this' : 'Let new folios begin like this' }}
        </button>
        <button type="button" class="framed-button primary" @click="desk.conventionsOpen = false">Done</button>
      </div>
    </div>
  </v-dialog>
</template>

<style scoped>
.conventions {
  padding: 24px;
  max-height: 88vh;
  overflow: auto;
}
h2 {
  font-size: 21px;
  margin-bottom: 8px;
}
fieldset {
  border: 0;
  border-top: 1px solid var(--rule);
  margin: 0;
  padding: 8px 0 10px;
}
legend {
  float: left;
  width: 100%;
  font-family: var(--serif);
  font-weight: 600;
  font-size: 16px;
}
fieldset p {
  clear: both;
  margin: 0 0 4px;
  font-size: 14px;
  color: var(--quiet);
}
label {
  display: grid;
  grid-template-columns: 22px 200px minmax(0, 1fr);
  align-items: baseline;
  padding: 3px 6px;
  border-radius: var(--corner);
  cursor: pointer;
}
.example {
  overflow-wrap: anywhere;
}
label :deep(.value) {
  white-space: normal;
}
label:hover {
  background: var(--rail);
}
label.on {
  background: var(--select);
}
input {
  accent-color: var(--teal);
}
.digits {
  display: flex;
  align-items: center;
  gap: 24px;
}
.answers {
  display: flex;
  flex-wrap: wrap;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 12px;
}
@media (max-width: 599px) {
  label {
    grid-template-columns: 22px minmax(0, 1fr);
  }
  label .example {
    grid-column: 2;
  }
}
</style>
