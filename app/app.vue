<script setup lang="ts">
import { useTheme } from 'vuetify'
import { watch } from 'vue'
import { usePreferencesStore } from '~/stores/preferences'

const preferences = usePreferencesStore()
const vuetifyTheme = useTheme()
watch(
  () => preferences.theme,
  (name) => vuetifyTheme.change(name),
  { immediate: true },
)
</script>

<template>
  <v-app>
    <NuxtPage />
    <LazyTheTooltip />
  </v-app>
</template>
