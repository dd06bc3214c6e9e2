<script setup lang="ts">
import { mdiTuneVariant } from '@mdi/js'
import { ref } from 'vue'
import type { VBtn } from 'vuetify/components'
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
const button = ref<VBtn | null>(null)
const SCALES = [1, 2, 4] as const

function remove(): void {
  open.value = false
  plates.remove(props.plate)
}
</script>

<template>
  <v-btn
    ref="button"
    data-tip="What the plate shows, and how"
    variant="text"
    aria-haspopup="dialog"
    :aria-expanded="open"
    @click="open = !open"
  >
    <AppIcon :path="mdiTuneVariant" />Plate
  </v-btn>
  <v-menu
    v-if="button"
    v-model="open"
    :target="button.$el"
    :open-on-click="false"
    :close-on-content-click="false"
    max-height="86vh"
  >
    <v-sheet class="plate-sheet" role="dialog" :aria-label="`Plate ${number}`">
      <fieldset :disabled="!folio.writable">
        <v-defaults-provider :defaults="{ global: { disabled: !folio.writable } }">
          <v-text-field
            label="Caption"
            maxlength="200"
            :model-value="plate.caption"
            @change="(e: Event) => plates.change(plate, { caption: textIn(e) })"
          />
          <slot />
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
      </div>
      <div v-if="plates.all.length > 1 && folio.writable" class="row">
        <v-btn class="link danger" variant="text" @click="remove">Remove plate {{ number }}</v-btn>
      </div>
    </v-sheet>
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
.plate-sheet .what {
  font-size: 13px;
  color: var(--quiet);
}
.plate-sheet .v-text-field {
  margin: 6px 0;
}
.plate-sheet .v-field {
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
  gap: 0 4px;
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
.plate-sheet .files {
  gap: 4px 8px;
  margin-top: 4px;
  border-top: 1px solid var(--rule);
}
</style>
