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

const WIDTHS = [1, 2, 3, 4.5] as const

function putByName(): void {
  const wanted = (name.value ?? '').trim()
  const found = props.candidates.findLast((c) => c.name === wanted)
  unknown.value = found || wanted === '' ? '' : `No kept value is called ${wanted}.`
  if (!found) return
  plates.put(props.plate, found.line, true)
  name.value = null
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
            @click="dressing = dressing === value.line ? null : value.line"
          >
            <AppIcon
              :path="mdiBrushVariant"
              :style="{ color: `var(--hue-${(plates.inks.get(value.line)?.hue ?? 0) + 1})` }"
            />
          </v-btn>
        </div>
        <div v-if="dressing === value.line" class="dress" role="group" :aria-label="`Dress of ${value.name}`">
          <div class="swatches" role="radiogroup" aria-label="Hue">
            <v-btn
              v-for="(hue, k) in HUE_NAMES"
              :key="hue"
              :data-tip="hue"
              role="radio"
              class="swatch"
              variant="text"
              :aria-checked="plates.inks.get(value.line)?.hue === k"
              :aria-label="hue"
              :style="{ background: `var(--hue-${k + 1})` }"
              @click="plates.dressUp(value.line, { hue: k })"
            />
          </div>
          <div class="choices" role="radiogroup" aria-label="Line">
            <v-btn
              v-for="dash in DASH_NAMES"
              :key="dash"
              :data-tip="dash"
              role="radio"
              class="choice"
              variant="text"
              :aria-checked="plates.dresses.get(value.line)?.dash === dash"
              :aria-label="dash"
              @click="plates.dressUp(value.line, { dash })"
            >
              <svg viewBox="0 0 34 8" aria-hidden="true">
                <line x1="1" y1="4" x2="33" y2="4" :stroke-dasharray="DASHES[dash].join(' ')" />
              </svg>
            </v-btn>
          </div>
          <div class="choices" role="radiogroup" aria-label="Thickness">
            <v-btn
              v-for="width in WIDTHS"
              :key="width"
              role="radio"
              class="choice"
              variant="text"
              :aria-checked="plates.inks.get(value.line)?.width === width"
              :aria-label="`Thickness ${width}`"
              @click="plates.dressUp(value.line, { width })"
            >
              <svg viewBox="0 0 34 8" aria-hidden="true">
                <line x1="1" y1="4" x2="33" y2="4" :stroke-width="width" />
              </svg>
            </v-btn>
          </div>
          <div v-if="plate.kind === 'plane'" class="choices" role="radiogroup" aria-label="Drawn as">
            <v-btn
              v-for="role in ROLES"
              :key="role"
              role="radio"
              class="choice"
              variant="text"
              :aria-checked="(plates.dresses.get(value.line)?.role ?? value.view.drawn?.role) === role"
              @click="plates.dressUp(value.line, { role })"
            >
              {{ role }}
            </v-btn>
          </div>
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
.swatches,
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-bottom: 4px;
}
.v-btn.swatch {
  width: 24px;
  height: 24px;
  min-height: 24px;
  padding: 0;
  border-radius: 50%;
  border: 3px solid var(--leaf);
}
.v-btn.swatch[aria-checked='true'] {
  box-shadow: 0 0 0 2px var(--ink);
}
.v-btn.choice {
  min-width: 44px;
  min-height: 26px;
  padding: 0 6px;
  border: 1px solid var(--rule);
  border-radius: var(--corner);
  font-size: 13px;
}
.v-btn.choice[aria-checked='true'] {
  border-color: var(--ink);
  background: var(--rail);
}
.choice svg {
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
