<script setup lang="ts">
import { ref } from 'vue'
import { textIn } from '~/browser/fields'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { usePreferencesStore } from '~/stores/preferences'
import type { Plate } from '#shared/plate'

/** What a plate shows and how: its caption, what its kind adds, and how it is saved as a file. Every change is seen at once. */
defineProps<{ plate: Plate; number: number; csv?: boolean }>()
const emit = defineEmits<{ png: [scale: number]; svg: []; csv: []; copy: [] }>()
const folio = useFolioStore()
const plates = usePlatesStore()
const preferences = usePreferencesStore()
const settings = ref<HTMLElement | null>(null)
const SCALES = [1, 2, 4] as const

/** The focus goes back to what opened them. */
function close(event: KeyboardEvent): void {
  event.stopPropagation()
  plates.setting = false
  settings.value?.closest('.plate')?.querySelector<HTMLElement>('.setting-button')?.focus()
}
</script>

<template>
  <section ref="settings" class="plate-settings" :aria-label="`Settings of plate ${number}`" @keydown.esc="close">
    <fieldset :disabled="!folio.writable">
      <v-defaults-provider :defaults="{ global: { disabled: !folio.writable } }">
        <v-text-field
          label="Caption"
          maxlength="200"
          :model-value="plate.caption"
          @change="(e: Event) => plates.change(plate, { caption: textIn(e) })"
        />
        <slot />
        <FamilyFields :plate="plate" />
      </v-defaults-provider>
    </fieldset>
    <div class="row files">
      <span class="what">Picture</span>
      <span>PNG</span>
      <v-btn v-for="scale in SCALES" :key="scale" class="link" variant="text" @click="emit('png', scale)">
        {{ scale }}×
      </v-btn>
      <v-btn class="link" variant="text" @click="emit('svg')">SVG</v-btn>
      <v-btn v-if="csv" class="link" variant="text" @click="emit('csv')">CSV</v-btn>
      <v-btn class="link" variant="text" @click="emit('copy')">copy</v-btn>
      <v-checkbox v-model="preferences.captioned" label="with number and caption" />
    </div>
    <div v-if="plates.all.length > 1 && folio.writable" class="row">
      <v-btn class="link danger" variant="text" @click="plates.remove(plate)">Remove plate {{ number }}</v-btn>
    </div>
  </section>
</template>

<style>
.plate-settings {
  padding: 4px 12px 12px;
}
.plate-settings fieldset {
  margin: 0;
  padding: 0;
  border: 0;
}
.plate-settings .what {
  font-size: 13px;
  color: var(--quiet);
}
.plate-settings .v-text-field {
  margin: 6px 0;
}
.plate-settings .v-field {
  background: var(--paper);
}
.plate-settings .pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
}
.plate-settings .row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  min-height: 30px;
}
.plate-settings .range {
  display: grid;
  grid-template-columns: 64px 1fr 18px 1fr;
  gap: 0 4px;
  align-items: center;
  margin-bottom: 4px;
  font-size: 13px;
  color: var(--quiet);
}
.plate-settings .wrong {
  margin: 0 0 6px;
  font-size: 13px;
  color: var(--error);
}
.plate-settings .files {
  gap: 4px 8px;
  margin-top: 4px;
  border-top: 1px solid var(--rule);
}
</style>
