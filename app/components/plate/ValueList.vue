<script setup lang="ts">
import { mdiBrushVariant } from '@mdi/js'
import { computed, nextTick, ref } from 'vue'
import { DASHES, DASH_NAMES, HUE_NAMES, ROLES } from '#core/scene/scene'
import type { Plate } from '#shared/plate'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import type { Candidate } from '~/stores/plates'

/** The values that can be on a plate: put on and taken off, and each in the dress that the student gives it. */
const props = defineProps<{ plate: Plate; candidates: readonly Candidate[] }>()
const folio = useFolioStore()
const plates = usePlatesStore()
const dressing = ref<string | null>(null)
const name = ref<string | null>(null)
const unknown = ref('')

const on = computed(() => new Set(plates.valuesOn(props.plate).map((c) => c.line)))
/** Usual values and those put on by hand; the rest are put on by name. */
const listed = computed(() =>
  props.candidates.filter((c) => props.plate.kind === 'curve' || c.usual || on.value.has(c.line)),
)
const others = computed(() => props.candidates.filter((c) => !listed.value.includes(c)))

const HUES = HUE_NAMES.map((hue, k) => ({ value: String(k), label: hue, name: hue }))
const LINES = DASH_NAMES.map((dash) => ({ value: dash, label: dash, name: dash }))
const WIDTHS = [1, 2, 3, 4.5].map((width) => ({
  value: String(width),
  label: String(width),
  name: `Thickness ${width}`,
}))
const MARKS = ROLES.map((role) => ({ value: role, label: role, name: role }))

function putByName(): void {
  const wanted = (name.value ?? '').trim()
  const found = props.candidates.findLast((c) => c.name === wanted)
  unknown.value = found || wanted === '' ? '' : `No kept value is called ${wanted}.`
  if (!found) return
  plates.put(props.plate, found.line, true)
  name.value = null
}

function open(line: string): void {
  dressing.value = dressing.value === line ? null : line
}
/** What is opened is in sight. */
function intoSight(element: unknown): void {
  if (element instanceof HTMLElement) element.scrollIntoView({ block: 'nearest' })
}

function setAll(all: boolean): void {
  const usual = props.candidates.filter((c) => c.usual).map((c) => c.line)
  if (props.plate.all) plates.change(props.plate, { off: all ? [] : usual, on: all ? props.plate.on : [] })
  else plates.change(props.plate, { on: all ? usual : [] })
}
</script>

<template>
  <section class="value-list" aria-label="Values on the plate">
    <div class="head">
      <span class="what">Values, {{ on.size }} of {{ listed.length }}</span>
      <v-btn class="link" variant="text" @click="setAll(true)">all</v-btn>
      <v-btn class="link" variant="text" @click="setAll(false)">none</v-btn>
    </div>
    <ul>
      <li v-for="value in listed" :key="value.line">
        <div class="value-row">
          <v-checkbox
            :model-value="on.has(value.line)"
            @update:model-value="(ticked) => plates.put(plate, value.line, ticked === true)"
          >
            <template #label>
              {{ value.name }}<span class="line">line {{ value.number }}</span>
            </template>
          </v-checkbox>
          <v-btn
            v-if="on.has(value.line)"
            data-tip="Hue, line and label"
            class="dress-button"
            variant="text"
            :aria-label="`Dress of ${value.name}`"
            :aria-expanded="dressing === value.line"
            @click="open(value.line)"
          >
            <AppIcon
              :path="mdiBrushVariant"
              :style="{ color: `var(--hue-${(plates.inks.get(value.line)?.hue ?? 0) + 1})` }"
            />
          </v-btn>
        </div>
        <div
          v-if="dressing === value.line"
          :ref="intoSight"
          class="dress"
          role="group"
          :aria-label="`Dress of ${value.name}`"
        >
          <ChoiceGroup
            label="hue"
            :group="`hue-${value.line}`"
            :choices="HUES"
            :value="String(plates.inks.get(value.line)?.hue ?? 0)"
            @choose="(hue) => plates.dressUp(value.line, { hue: Number(hue) })"
          >
            <template #mark="{ choice }">
              <span class="swatch" :style="{ background: `var(--hue-${Number(choice.value) + 1})` }" />
            </template>
          </ChoiceGroup>
          <ChoiceGroup
            label="line"
            :group="`dash-${value.line}`"
            :choices="LINES"
            :value="plates.dresses.get(value.line)?.dash ?? null"
            @choose="(dash) => plates.dressUp(value.line, { dash })"
          >
            <template #mark="{ choice }">
              <svg class="stroke" viewBox="0 0 34 8" aria-hidden="true">
                <line x1="1" y1="4" x2="33" y2="4" :stroke-dasharray="DASHES[choice.value].join(' ')" />
              </svg>
            </template>
          </ChoiceGroup>
          <ChoiceGroup
            label="thickness"
            :group="`width-${value.line}`"
            :choices="WIDTHS"
            :value="String(plates.inks.get(value.line)?.width ?? 2)"
            @choose="(width) => plates.dressUp(value.line, { width: Number(width) })"
          >
            <template #mark="{ choice }">
              <svg class="stroke" viewBox="0 0 34 8" aria-hidden="true">
                <line x1="1" y1="4" x2="33" y2="4" :stroke-width="choice.value" />
              </svg>
            </template>
          </ChoiceGroup>
          <ChoiceGroup
            v-if="plate.kind === 'plane'"
            label="as"
            :group="`role-${value.line}`"
            :choices="MARKS"
            :value="plates.dresses.get(value.line)?.role ?? value.view.drawn?.role ?? 'arrow'"
            @choose="(role) => plates.dressUp(value.line, { role })"
          />
          <v-checkbox
            label="label"
            :model-value="plates.dresses.get(value.line)?.label ?? true"
            @update:model-value="(ticked) => plates.dressUp(value.line, { label: ticked === true })"
          />
        </div>
      </li>
    </ul>
    <form class="by-name" @submit.prevent="putByName">
      <v-combobox
        v-model="name"
        maxlength="80"
        placeholder="put on by name"
        aria-label="Put on by name"
        :items="others.map((other) => other.name)"
        :disabled="!folio.writable"
        :error-messages="unknown"
        @keydown.enter="nextTick(putByName)"
      />
      <v-btn type="submit" class="link" variant="text">put on</v-btn>
    </form>
  </section>
</template>

<style scoped>
.value-list {
  border-top: 1px solid var(--rule);
}
.head {
  display: flex;
  align-items: center;
  gap: 4px 14px;
  min-height: 30px;
}
.what {
  margin-right: auto;
  font-size: 13px;
  color: var(--quiet);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 216px;
  overflow: auto;
  scrollbar-width: thin;
}
.value-row {
  display: flex;
  align-items: center;
}
.value-row .v-checkbox {
  flex: 1;
}
.value-row .v-checkbox :deep(.v-selection-control),
.value-row .v-checkbox :deep(.v-label) {
  flex: 1;
}
.line {
  margin-left: auto;
  font-size: 13px;
  color: var(--quiet);
}
.v-btn.dress-button {
  min-height: 28px;
  margin-left: 6px;
}
.dress {
  padding: 4px 0 8px 20px;
  border-left: 3px double var(--brass);
}
.dress .choice-group {
  flex-wrap: wrap;
  margin-bottom: 4px;
}
.dress :deep(.v-selection-control-group) {
  flex-wrap: wrap;
}
.swatch {
  display: block;
  width: 20px;
  height: 20px;
  margin: 4px 0;
  border: 2px solid var(--leaf);
  border-radius: 50%;
}
.stroke {
  display: block;
  width: 34px;
  height: 8px;
  stroke: currentcolor;
  stroke-width: 2;
}
.by-name {
  display: flex;
  gap: 8px;
  margin: 6px 0;
}
</style>
