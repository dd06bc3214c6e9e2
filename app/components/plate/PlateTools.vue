<script setup lang="ts">
import {
  mdiFitToPageOutline,
  mdiFullscreen,
  mdiFullscreenExit,
  mdiMagnifyMinusOutline,
  mdiMagnifyPlusOutline,
} from '@mdi/js'
import { useDeskStore } from '~/stores/desk'

/** What every plate can be asked for: nearer, farther, the whole, the whole window; its own things stand between. */
defineProps<{ fitTitle: string }>()
const emit = defineEmits<{ nearer: []; farther: []; fit: [] }>()
const desk = useDeskStore()
</script>

<template>
  <button type="button" class="plain-button" aria-label="Zoom in" title="Zoom in (+)" @click="emit('nearer')">
    <AppIcon :path="mdiMagnifyPlusOutline" />
  </button>
  <button type="button" class="plain-button" aria-label="Zoom out" title="Zoom out (−)" @click="emit('farther')">
    <AppIcon :path="mdiMagnifyMinusOutline" />
  </button>
  <button type="button" class="plain-button" :title="fitTitle" @click="emit('fit')">
    <AppIcon :path="mdiFitToPageOutline" />Fit
  </button>
  <slot />
  <button
    type="button"
    class="plain-button"
    :aria-label="desk.full ? 'Give the ledger back' : 'Fill the window'"
    :title="desk.full ? 'Give the ledger back (Esc)' : 'Fill the window'"
    :aria-pressed="desk.full"
    @click="desk.full = !desk.full"
  >
    <AppIcon :path="desk.full ? mdiFullscreenExit : mdiFullscreen" />
  </button>
</template>
