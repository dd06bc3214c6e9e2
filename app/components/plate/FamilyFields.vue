<script setup lang="ts">
import { computed } from 'vue'
import { FAMILY_MOST } from '#shared/plate'
import type { Plate } from '#shared/plate'
import { textIn } from '~/browser/fields'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { useResultsStore } from '~/stores/results'

/** A family: what the plate shows, for several values of a number that a line keeps. */
const props = defineProps<{ plate: Plate }>()
const folio = useFolioStore()
const plates = usePlatesStore()
const results = useResultsStore()

const NONE = ''
const choices = computed(() => [
  { title: 'of none', value: NONE },
  ...folio.lines.flatMap((line, k) => {
    const view = line.note ? undefined : results.views.get(line.id)
    if (!view?.name || view.numbers.length === 0 || view.uses.length > 0) return []
    return [{ title: `${view.name} (line ${k + 1})`, value: line.id }]
  }),
])
const values = computed(() => props.plate.family?.values.join('; ') ?? '')
const wrong = computed(() => (props.plate.family && props.plate.family.values.length === 0 ? `Write up to ${FAMILY_MOST} values with semicolons between: 0.1; 0.3; 1` : '')) // prettier-ignore

function choose(line: string): void {
  if (line === NONE) return plates.change(props.plate, { family: null })
  const [first] = results.views.get(line)?.numbers ?? []
  // To begin with half of it, and twice as much.
  const some = first ? [first.value / 2, 2 * first.value].map((x) => String(Number(x.toPrecision(3)))) : []
  plates.change(props.plate, { family: { line, values: some } })
}

function write(event: Event): void {
  const { family } = props.plate
  if (!family) return
  const parts = textIn(event).replaceAll('−', '-').split(';').map((part) => part.trim()).filter((part) => part !== '' && part.length <= 40) // prettier-ignore
  plates.change(props.plate, { family: { ...family, values: parts.slice(0, FAMILY_MOST) } })
}
</script>

<template>
  <div class="pair">
    <v-select
      label="Family"
      :items="choices"
      :model-value="plate.family?.line ?? NONE"
      @update:model-value="(line: string) => choose(line)"
    />
    <v-text-field
      label="for its values"
      maxlength="200"
      placeholder="0.1; 0.3; 1"
      :disabled="!plate.family || !folio.writable"
      :model-value="values"
      :error-messages="wrong"
      @change="write"
    />
  </div>
</template>
