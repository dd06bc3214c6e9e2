<script setup lang="ts">
import { computed } from 'vue'
import { equalData } from '#core/equalData'
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
function choose(choice: Choice | undefined): void {
  if (choice) folio.convene(choice.change)
}
const isDefault = computed(() => equalData(preferences.defaults, c.value))
</script>

<template>
  <SheetDialog v-model="desk.conventionsOpen" name="Conventions" title="Conventions of this folio" wide>
    <fieldset v-for="group in groups" :key="group.title">
      <legend>{{ group.title }}</legend>
      <p>{{ group.what }}</p>
      <v-radio-group
        :aria-label="group.title"
        :model-value="group.choices.findIndex((item) => isOn(item.change))"
        @update:model-value="(k: number | null) => choose(group.choices[k ?? -1])"
      >
        <v-radio v-for="(item, k) in group.choices" :key="item.name" :value="k">
          <template #label>
            <span class="name">{{ item.name }}</span>
            <span class="example"><ValueText :text="item.example" :letter="item.change.letter ?? c.letter" /></span>
          </template>
        </v-radio>
      </v-radio-group>
    </fieldset>
    <fieldset>
      <legend>Digits</legend>
      <p>Significant digits shown, 2 to 16. What is stored always has them all.</p>
      <div class="digits">
        <DigitStepper :value="c.digits" @choose="(digits) => folio.convene({ digits })" />
        <span class="example"><ValueText :text="shown({}, 'root')" :letter="c.letter" /></span>
      </div>
    </fieldset>
    <template #answers>
      <v-btn :disabled="isDefault" @click="preferences.defaults = { ...c }">
        {{ isDefault ? 'New folios begin like this' : 'Let new folios begin like this' }}
      </v-btn>
      <v-btn color="primary" variant="flat" @click="desk.conventionsOpen = false">Done</v-btn>
    </template>
  </SheetDialog>
</template>

<style scoped>
fieldset {
  border: 0;
  border-top: 1px solid var(--rule);
  margin: 0;
  padding: 8px 0 0;
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
.v-radio {
  padding: 0 6px;
  border-radius: var(--corner);
}
.v-radio:hover {
  background: var(--rail);
}
.v-radio.v-selection-control--dirty {
  background: var(--select);
}
.v-radio :deep(.v-label) {
  flex: 1;
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr);
  align-items: baseline;
}
.example {
  overflow-wrap: anywhere;
}
.example :deep(.value) {
  white-space: normal;
}
.digits {
  display: flex;
  align-items: center;
  gap: 24px;
}
@media (max-width: 599px) {
  .v-radio :deep(.v-label) {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
