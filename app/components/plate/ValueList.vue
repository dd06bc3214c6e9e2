<script setup lang="ts">
import { mdiBrushVariant } from '@mdi/js'
import { computed, ref } from 'vue'
import { DASHES, DASH_NAMES, HUES, ROLES } from '#core/scene/scene'
import type { Plate } from '#shared/plate'
import { tickedIn } from '~/browser/fields'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import type { Candidate } from '~/stores/plates'

/** The values that can be on a plate: put on and taken off, and each in the dress that the student gives it. */
const props = defineProps<{ plate: Plate; candidates: readonly Candidate[] }>()
const folio = useFolioStore()
const plates = usePlatesStore()
const dressing = ref<string | null>(null)
const name = ref('')
const unknown = ref('')

const on = computed(() => new Set(plates.valuesOn(props.plate).map((c) => c.line)))
/** Usual values and those put on by hand; the rest are put on by name. */
const listed = computed(() =>
  props.candidates.filter((c) => props.plate.kind === 'curve' || c.usual || on.value.has(c.line)),
)
const others = computed(() => props.candidates.filter((c) => !listed.value.includes(c)))

const WIDTHS = [1, 2, 3, 4.5] as const

function putByName(): void {
  const wanted = name.value.trim()
  const found = props.candidates.findLast((c) => c.name === wanted)
  unknown.value = found || wanted === '' ? '' : `No kept value is called ${wanted}.`
  if (!found) return
  plates.put(props.plate, found.line, true)
  name.value = ''
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
      <button type="button" class="link" @click="setAll(true)">all</button>
      <button type="button" class="link" @click="setAll(false)">none</button>
    </div>
    <ul>
      <li v-for="value in listed" :key="value.line">
        <div class="value-row">
          <label>
            <input
              type="checkbox"
              :checked="on.has(value.line)"
              @change="(e) => plates.put(plate, value.line, tickedIn(e))"
            />{{ value.name }}<span class="line">line {{ value.number }}</span>
          </label>
          <button
            v-if="on.has(value.line)"
            type="button"
            class="plain-button dress-button"
            :aria-label="`Dress of ${value.name}`"
            :aria-expanded="dressing === value.line"
            title="Hue, line and label"
            @click="dressing = dressing === value.line ? null : value.line"
          >
            <AppIcon
              :path="mdiBrushVariant"
              :style="{ color: `var(--hue-${(plates.inks.get(value.line)?.hue ?? 0) + 1})` }"
            />
          </button>
        </div>
        <div v-if="dressing === value.line" class="dress" role="group" :aria-label="`Dress of ${value.name}`">
          <div class="swatches" role="radiogroup" aria-label="Hue">
            <button
              v-for="hue in HUES"
              :key="hue"
              type="button"
              role="radio"
              class="swatch"
              :aria-checked="plates.inks.get(value.line)?.hue === hue - 1"
              :aria-label="`Hue ${hue}`"
              :style="{ background: `var(--hue-${hue})` }"
              @click="plates.dressUp(value.line, { hue: hue - 1 })"
            />
          </div>
          <div class="choices" role="radiogroup" aria-label="Line">
            <button
              v-for="dash in DASH_NAMES"
              :key="dash"
              type="button"
              role="radio"
              class="choice"
              :aria-checked="plates.dresses.get(value.line)?.dash === dash"
              :aria-label="dash"
              :title="dash"
              @click="plates.dressUp(value.line, { dash })"
            >
              <svg viewBox="0 0 34 8" aria-hidden="true">
                <line x1="1" y1="4" x2="33" y2="4" :stroke-dasharray="DASHES[dash].join(' ')" />
              </svg>
            </button>
          </div>
          <div class="choices" role="radiogroup" aria-label="Thickness">
            <button
              v-for="width in WIDTHS"
              :key="width"
              type="button"
              role="radio"
              class="choice"
              :aria-checked="plates.inks.get(value.line)?.width === width"
              :aria-label="`Thickness ${width}`"
              @click="plates.dressUp(value.line, { width })"
            >
              <svg viewBox="0 0 34 8" aria-hidden="true">
                <line x1="1" y1="4" x2="33" y2="4" :stroke-width="width" />
              </svg>
            </button>
          </div>
          <div v-if="plate.kind === 'plane'" class="choices" role="radiogroup" aria-label="Drawn as">
            <button
              v-for="role in ROLES"
              :key="role"
              type="button"
              role="radio"
              class="choice"
              :aria-checked="(plates.dresses.get(value.line)?.role ?? value.view.drawn?.role) === role"
              @click="plates.dressUp(value.line, { role })"
            >
              {{ role }}
            </button>
          </div>
          <label
            ><input
              type="checkbox"
              :checked="plates.dresses.get(value.line)?.label ?? true"
              @change="(e) => plates.dressUp(value.line, { label: tickedIn(e) })"
            />label</label
          >
        </div>
      </li>
    </ul>
    <form class="by-name" @submit.prevent="putByName">
      <input
        v-model="name"
        type="text"
        list="kept-on-no-plate"
        maxlength="80"
        placeholder="put on by name"
        aria-label="Put on by name"
        :disabled="!folio.writable"
      />
      <datalist id="kept-on-no-plate">
        <option v-for="other in others" :key="other.line" :value="other.name" />
      </datalist>
      <button type="submit" class="link">put on</button>
    </form>
    <p v-if="unknown" class="unknown" role="alert">{{ unknown }}</p>
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
.link {
  min-width: 24px;
  min-height: 24px;
  text-decoration: underline;
  text-underline-offset: 3px;
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
label {
  display: flex;
  align-items: center;
  flex: 1;
  min-height: 28px;
}
input[type='checkbox'] {
  accent-color: var(--teal);
  margin: 0 6px 0 0;
}
.line {
  margin-left: auto;
  font-size: 13px;
  color: var(--quiet);
}
.dress-button {
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
.swatch {
  width: 24px;
  height: 24px;
  border-radius: 50%;
  border: 3px solid var(--leaf);
}
.swatch[aria-checked='true'] {
  box-shadow: 0 0 0 2px var(--ink);
}
.choice {
  min-width: 44px;
  min-height: 26px;
  padding: 0 6px;
  border: 1px solid var(--rule);
  border-radius: var(--corner);
  font-size: 13px;
}
.choice[aria-checked='true'] {
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
.by-name input {
  flex: 1;
  min-width: 0;
  padding: 3px 8px;
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  background: var(--paper);
}
.unknown {
  margin: 0 0 6px;
  font-size: 13px;
  color: var(--error);
}
</style>
