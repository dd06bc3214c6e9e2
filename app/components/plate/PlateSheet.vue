<script setup lang="ts">
import { mdiTuneVariant } from '@mdi/js'
import { ref } from 'vue'
import { textIn } from '~/browser/fields'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import type { Plate } from '#shared/plate'

/** The sheet of a plate: its caption, what its kind adds, and how it is saved as a file. */
const props = defineProps<{ plate: Plate; number: number; csv?: boolean }>()
const emit = defineEmits<{ png: [scale: number]; svg: []; csv: []; copy: [] }>()
const folio = useFolioStore()
const plates = usePlatesStore()
const open = ref(false)
const button = ref<HTMLButtonElement | null>(null)
const SCALES = [1, 2, 4] as const

function remove(): void {
  open.value = false
  plates.remove(props.plate)
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
    <div class="sheet plate-sheet" role="dialog" :aria-label="`Plate ${number}`">
      <fieldset :disabled="!folio.writable">
        <label class="field">
          <span>Caption</span>
          <input
            type="text"
            maxlength="200"
            :value="plate.caption"
            @change="(e) => plates.change(plate, { caption: textIn(e) })"
          />
        </label>
        <slot />
      </fieldset>
      <div class="row files">
        <span class="what">Picture</span>
        <span>PNG</span>
        <button v-for="scale in SCALES" :key="scale" type="button" class="link" @click="emit('png', scale)">
          {{ scale }}×
        </button>
        <button type="button" class="link" @click="emit('svg')">SVG</button>
        <button v-if="csv" type="button" class="link" @click="emit('csv')">CSV</button>
        <button type="button" class="link" @click="emit('copy')">copy</button>
      </div>
      <div v-if="plates.all.length > 1 && folio.writable" class="row">
        <button type="button" class="link danger" @click="remove">Remove plate {{ number }}</button>
      </div>
    </div>
  </v-menu>
</template>

<style>
.plate-sheet {
  width: 340px;
  max-height: 84vh;
  overflow: auto;
  padding: 12px 16px;
  scrollbar-width: thin;
}
.plate-sheet fieldset {
  margin: 0;
  padding: 0;
  border: 0;
}
.plate-sheet .what,
.plate-sheet .field > span {
  font-size: 13px;
  color: var(--quiet);
}
.plate-sheet .field {
  display: block;
  margin-bottom: 8px;
}
.plate-sheet .field input,
.plate-sheet .range input {
  width: 100%;
  min-width: 0;
  padding: 4px 8px;
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  background: var(--paper);
}
.plate-sheet .pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.plate-sheet .row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  min-height: 30px;
}
.plate-sheet .range {
  display: grid;
  grid-template-columns: 64px 1fr 18px 1fr;
  gap: 4px;
  align-items: center;
  margin-bottom: 4px;
  font-size: 13px;
  color: var(--quiet);
}
.plate-sheet .wrong {
  margin: 0 0 6px;
  font-size: 13px;
  color: var(--error);
}
.plate-sheet label input[type='radio'],
.plate-sheet label input[type='checkbox'] {
  accent-color: var(--teal);
  margin: 0 6px 0 0;
}
.plate-sheet .link {
  min-width: 24px;
  min-height: 24px;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.plate-sheet .danger {
  color: var(--error);
}
.plate-sheet .files {
  margin-top: 4px;
  border-top: 1px solid var(--rule);
}
</style>
