<script setup lang="ts">
import {
  mdiFitToPageOutline,
  mdiFullscreen,
  mdiFullscreenExit,
  mdiMagnifyMinusOutline,
  mdiMagnifyPlusOutline,
  mdiTuneVariant,
} from '@mdi/js'
import { useDeskStore } from '~/stores/desk'
import { usePlatesStore } from '~/stores/plates'

/** What every plate can be asked for: nearer, farther, the whole, the whole window; its own things stand between. */
defineProps<{ fitTitle: string }>()
const emit = defineEmits<{ nearer: []; farther: []; fit: [] }>()
const desk = useDeskStore()
const plates = usePlatesStore()
</script>

<template>
  <v-btn data-tip="Zoom in (+)" variant="text" aria-label="Zoom in" @click="emit('nearer')">
    <AppIcon :path="mdiMagnifyPlusOutline" />
  </v-btn>
  <v-btn data-tip="Zoom out (−)" variant="text" aria-label="Zoom out" @click="emit('farther')">
    <AppIcon :path="mdiMagnifyMinusOutline" />
  </v-btn>
  <v-btn :data-tip="fitTitle" variant="text" @click="emit('fit')"> <AppIcon :path="mdiFitToPageOutline" />Fit </v-btn>
  <slot />
  <v-btn
    class="setting-button"
    data-tip="What the plate shows, and how"
    variant="text"
    :aria-expanded="plates.setting"
    @click="plates.setting = !plates.setting"
  >
    <AppIcon :path="mdiTuneVariant" />Plate
  </v-btn>
  <v-btn
    :data-tip="desk.full ? 'Give the ledger back (Esc)' : 'Fill the window'"
    variant="text"
    :aria-label="desk.full ? 'Give the ledger back' : 'Fill the window'"
    :aria-pressed="desk.full"
    @click="desk.full = !desk.full"
  >
    <AppIcon :path="desk.full ? mdiFullscreenExit : mdiFullscreen" />
  </v-btn>
</template>
