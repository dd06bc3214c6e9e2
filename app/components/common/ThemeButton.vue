<script setup lang="ts">
import { mdiWeatherNight, mdiWhiteBalanceSunny } from '@mdi/js'
import { usePreferencesStore } from '~/stores/preferences'

const preferences = usePreferencesStore()
function toggle(): void {
  preferences.theme = preferences.theme === 'day' ? 'night' : 'day'
}
</script>

<template>
  <v-btn
    variant="text"
    :aria-label="preferences.theme === 'day' ? 'Change to the night theme' : 'Change to the day theme'"
    @click="toggle"
  >
    <AppIcon :path="preferences.theme === 'day' ? mdiWeatherNight : mdiWhiteBalanceSunny" />
    <span class="wide-only">{{ preferences.theme === 'day' ? 'Night' : 'Day' }}</span>
  </v-btn>
</template>
