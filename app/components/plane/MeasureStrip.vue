<script setup lang="ts">
import { mdiClose, mdiSwapHorizontal, mdiTableRowPlusAfter } from '@mdi/js'
import { computed } from 'vue'
import { formatAngle } from '#core/format/parts'
import type { Complex } from '#core/numbers/complex'
import { measure } from '#core/scene/measure'
import { scaledPoint } from '#core/scene/unitScales'
import type { UnitScale } from '#core/scene/unitScales'
import { twinIn } from '#core/views/twinIn'
import type { PlaneMark } from '#core/scene/scene'
import { angleOf, complexNumber, real } from '#core/values/make'
import { useFolioStore } from '~/stores/folio'
import { formatNumber, formatPolar, formatRectangular } from '#core/format/number'

/** What two picked values say of each other, and each of it as a line of the ledger. */
const props = defineProps<{ marks: readonly PlaneMark[]; scales: readonly UnitScale[] }>()
const emit = defineEmits<{ close: []; swap: [] }>()
const folio = useFolioStore()

interface Row {
  readonly label: string
  readonly text: string
  readonly also: string
  /** The line that says the same; `null` where the ledger has no such line. */
  readonly source: string | null
}

const pair = computed(() => {
  const [from, to] = props.marks
  return from && to ? { from, to } : null
})

/** A mark counted in its own unit; what that unit is. */
const scaleOf = (mark: PlaneMark): UnitScale | undefined => props.scales.find(({ key }) => key === (mark.unit ?? ''))
const inOwn = (mark: PlaneMark): Complex => scaledPoint(mark, 1 / (scaleOf(mark)?.scale ?? 1))
const textOf = (mark: PlaneMark): string => scaleOf(mark)?.text ?? ''

/** Two components are a vector of the ledger, not a complex number. */
const isVector = (mark: PlaneMark): boolean => mark.rectangular.startsWith('[')

const rows = computed<readonly Row[]>(() => {
  if (!pair.value) return []
  const { from, to } = pair.value
  const [a, b] = [from.label, to.label]
  const found = measure(inOwn(from), inOwn(to))
  // Values of two units have an angle between them, and no difference.
  const alike = (from.unit ?? '') === (to.unit ?? '')
  const { conventions } = folio
  const both = isVector(from) && isVector(to)
  const one = isVector(from) || isVector(to)
  const list: Row[] = []
  if (alike) {
    const text = textOf(from)
    const { rectangular, polar } = twinIn(found.difference, text, conventions)
    const { rectangular: size } = twinIn({ re: found.distance, im: 0 }, text, conventions)
    list.push(
      { label: `${b} − ${a}`, text: rectangular, also: polar, source: both || !one ? `${b} - ${a}` : null },
      {
        label: 'distance',
        text: text === '' ? formatNumber(real(found.distance), conventions) : size.replace(/^\((.*?) [+-] .*\)/, '$1'),
        also: '',
        source: both ? `dist(${a}, ${b})` : one ? null : `|${b} - ${a}|`,
      },
    )
  }
  if (found.ratio && alike) {
    const ratio = complexNumber(found.ratio)
    list.push({
      label: `${b} / ${a}`,
      text: formatRectangular(ratio, conventions),
      also: formatPolar(ratio, conventions),
      source: one ? null : `${b}/${a}`,
    })
  }
  if (found.angle !== null)
    list.push({
      label: `from ${a} to ${b}`,
      text: formatAngle(angleOf(found.angle), conventions),
      also: '',
      source: both ? `angle(${a}, ${b})` : one ? null : `arg(${b}/${a})`,
    })
  return list
})

/** Below the later of the two lines, where both names are known. */
function keepAs(source: string): void {
  if (!pair.value) return
  const at = Math.max(folio.indexOf(pair.value.from.line), folio.indexOf(pair.value.to.line))
  folio.makeCurrent(folio.lines[at]?.id ?? folio.current)
  folio.insertBelow([source])
}
</script>

<template>
  <section class="measure" aria-label="Two values measured">
    <header>
      <strong v-if="pair">{{ pair.from.label }} and {{ pair.to.label }}</strong>
      <span v-else-if="marks.length === 1">{{ marks[0]?.label }}, and which other?</span>
      <span v-else>Pick two values: click them, or press Enter on them.</span>
      <v-btn v-if="pair" data-tip="The other way round" variant="text" @click="emit('swap')">
        <AppIcon :path="mdiSwapHorizontal" />Swap
      </v-btn>
      <v-btn data-tip="Stop measuring" variant="text" aria-label="Stop measuring" @click="emit('close')">
        <AppIcon :path="mdiClose" />
      </v-btn>
    </header>
    <v-table v-if="pair" aria-label="Difference, distance, ratio and angle">
      <tbody>
        <tr v-for="row in rows" :key="row.label">
          <th scope="row">{{ row.label }}</th>
          <td>
            <ValueText :text="row.text" :letter="folio.conventions.letter" />
            <ValueText v-if="row.also" class="also" :text="row.also" :letter="folio.conventions.letter" />
          </td>
          <td class="keep">
            <v-btn
              v-if="row.source !== null && folio.writable"
              data-tip="Keep it as a line of the ledger"
              variant="text"
              :aria-label="`Keep ${row.label} as a line`"
              @click="keepAs(row.source)"
            >
              <AppIcon :path="mdiTableRowPlusAfter" />
            </v-btn>
          </td>
        </tr>
      </tbody>
    </v-table>
  </section>
</template>

<style scoped>
.measure {
  flex: none;
  margin-top: 6px;
  padding: 4px 0 2px;
  border-top: 1px solid var(--rule);
}
header {
  display: flex;
  align-items: center;
  gap: 8px;
  min-height: 32px;
  color: var(--quiet);
}
header > :first-child {
  margin-right: auto;
  font-family: var(--serif);
  font-style: italic;
}
header strong {
  color: var(--ink);
}
.v-table {
  width: 100%;
  border-collapse: collapse;
}
tr {
  border-top: 1px solid var(--rule);
}
th,
td {
  height: 32px;
  padding: 0 16px 0 0;
  text-align: left;
}
th {
  font-family: var(--serif);
  font-style: italic;
  font-weight: 400;
  color: var(--quiet);
}
.keep {
  width: 34px;
  padding: 0;
}
.also {
  margin-left: 20px;
  color: var(--quiet);
}
</style>
