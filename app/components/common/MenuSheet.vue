<script setup lang="ts">
import type { MenuAction } from './MenuButton.vue'

/** The sheet of actions that a button opens. */
defineProps<{ target: HTMLElement; label: string; actions: readonly MenuAction[] }>()
const open = defineModel<boolean>({ required: true })
</script>

<template>
  <v-menu v-model="open" :target="target" :open-on-click="false" location="bottom end" max-height="80vh">
    <v-list role="menu" :aria-label="label">
      <v-list-item
        v-for="action in actions"
        :key="action.label"
        :role="action.on === undefined ? 'menuitem' : 'menuitemradio'"
        :aria-checked="action.on"
        :active="action.on"
        tabindex="0"
        :class="{ danger: action.danger }"
        :title="action.label"
        @click="action.run"
      >
        <template v-if="action.icon" #prepend><AppIcon :path="action.icon" /></template>
        <template v-if="action.key" #append
          ><span class="key" aria-hidden="true">{{ action.key }}</span></template
        >
      </v-list-item>
    </v-list>
  </v-menu>
</template>
