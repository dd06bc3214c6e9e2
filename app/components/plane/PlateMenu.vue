<script setup lang="ts">
import { mdiTuneVariant } from '@mdi/js'
import { computed, ref } from 'vue'
import { useFolioStore } from '~/stores/folio'
import { onPlate, useResultsStore } from '~/stores/results'

/** What a plate shows and how: caption, axes, grid, and which values. Kept in the folio, undone like the rest. */
const emit = defineEmits<{ picture: [scale: number] }>()
const folio = useFolioStore()
const results = useResultsStore()
const open = ref(false)
const button = ref<HTMLButtonElement | null>(null)
const plate = computed(() => folio.plate)

const GRIDS = [
  ['rectangular', 'lines'],
  ['polar', 'rings and rays'],
  ['none', 'none'],
] as const
const SCALES = [1, 2, 4] as const

const values = computed(() =>
  folio.lines.flatMap((line, k) => {
    const view = line.note ? undefined : results.views.get(line.id)
    return onPlate(view) ? [{ id: line.id, name: view?.name ?? '', number: k + 1 }] : []
  }),
)
const shownCount = computed(() => values.value.filter((v) => !plate.value.off.includes(v.id)).length)

function put(id: string, on: boolean): void {
  const off = plate.value.off.filter((other) => other !== id)
  folio.setPlate({ off: on ? off : [...off, id] })
}
function text(event: Event): string {
  return event.target instanceof HTMLInputElement ? event.target.value.trim() : ''
}
function checked(event: Event): boolean {
  return event.target instanceof HTMLInputElement && event.target.checked
}
</script>

<template>
  <button
    ref="button"
    type="button"
    class="plain-button"
    title="What the plate shows, and how"
    aria-haspopup="dialog"
    :aria-expanded="open"
    @click="open = !open"
  >
    <AppIcon :path="mdiTuneVariant" />Plate
  </button>
  <v-menu
    v-if="button"
    v-model="open"
    :target="button"
    :open-on-click="false"
    :close-on-content-click="false"
    max-height="86vh"
  >
    <div class="sheet plate-sheet" role="dialog" aria-label="Plate 1">
      <fieldset :disabled="!folio.writable">
        <label class="field">
          <span>Caption</span>
          <input
            type="text"
            maxlength="200"
            :value="plate.caption"
            @change="(e) => folio.setPlate({ caption: text(e) })"
          />
        </label>
        <div class="pair">
          <label class="field">
            <span>Real axis</span>
            <input type="text" maxlength="60" :value="plate.re" @change="(e) => folio.setPlate({ re: text(e) })" />
          </label>
          <label class="field">
            <span>Imaginary axis</span>
            <input type="text" maxlength="60" :value="plate.im" @change="(e) => folio.setPlate({ im: text(e) })" />
          </label>
        </div>
        <div class="row" role="radiogroup" aria-label="Grid">
          <span class="what">Grid</span>
          <label v-for="[grid, label] in GRIDS" :key="grid">
            <input type="radio" name="plate-grid" :checked="plate.grid === grid" @change="folio.setPlate({ grid })" />{{
              label
            }}
          </label>
        </div>
        <div class="row">
          <label
            ><input
              type="checkbox"
              :checked="plate.unitCircle"
              @change="(e) => folio.setPlate({ unitCircle: checked(e) })"
            />unit circle</label
          >
          <label
            ><input
              type="checkbox"
              :checked="plate.conjugates"
              @change="(e) => folio.setPlate({ conjugates: checked(e) })"
            />conjugates</label
          >
          <label
            ><input
              type="checkbox"
              :checked="plate.labels"
              @change="(e) => folio.setPlate({ labels: checked(e) })"
            />labels</label
          >
        </div>
        <div class="values-head">
          <span class="what">Values, {{ shownCount }} of {{ values.length }}</span>
          <button type="button" class="link" @click="folio.setPlate({ off: [] })">all</button>
          <button type="button" class="link" @click="folio.setPlate({ off: values.map((v) => v.id) })">none</button>
        </div>
        <ul>
          <li v-for="value in values" :key="value.id">
            <label>
              <input
                type="checkbox"
                :checked="!plate.off.includes(value.id)"
                @change="(e) => put(value.id, checked(e))"
              />{{ value.name }}<span class="line">line {{ value.number }}</span>
            </label>
          </li>
        </ul>
      </fieldset>
      <div class="row">
        <span class="what">Picture as PNG</span>
        <button v-for="scale in SCALES" :key="scale" type="button" class="link" @click="emit('picture', scale)">
          {{ scale }}×
        </button>
      </div>
    </div>
  </v-menu>
</template>

<style scoped>
.plate-sheet {
  width: 320px;
  max-height: 84vh;
  overflow: auto;
  padding: 12px 16px;
}
fieldset {
  margin: 0;
  padding: 0;
  border: 0;
}
.field span,
.what {
  font-size: 13px;
  color: var(--quiet);
}
.field {
  display: block;
  margin-bottom: 8px;
}
.field input {
  width: 100%;
  padding: 4px 8px;
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  background: var(--paper);
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.row,
.values-head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  min-height: 30px;
}
label input[type='radio'],
label input[type='checkbox'] {
  accent-color: var(--teal);
  margin: 0 6px 0 0;
}
.values-head {
  margin-top: 4px;
  border-top: 1px solid var(--rule);
}
.values-head .what {
  margin-right: auto;
}
.link {
  min-width: 24px;
  min-height: 24px;
  text-decoration: underline;
  text-underline-offset: 3px;
}
ul {
  list-style: none;
  margin: 0 0 8px;
  padding: 0;
  max-height: 200px;
  overflow: auto;
  scrollbar-width: thin;
}
li label {
  display: flex;
  align-items: center;
  min-height: 26px;
}
.line {
  margin-left: auto;
  font-size: 13px;
  color: var(--quiet);
}
</style>
