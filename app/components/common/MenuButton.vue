<script setup lang="ts">
import { mdiDotsVertical } from '@mdi/js'

/** Three dots that open a small sheet of actions. */
export interface MenuAction {
  readonly label: string
  readonly icon: string
  readonly key?: string
  readonly danger?: boolean
  readonly run: () => void
}
defineProps<{ label: string; actions: readonly MenuAction[] }>()
</script>

<template>
  <v-menu>
    <template #activator="{ props: activator }">
      <button type="button" class="menu-button" :aria-label="label" v-bind="activator" @click.stop>
        <AppIcon :path="mdiDotsVertical" />
      </button>
    </template>
    <div class="sheet menu-sheet" role="menu" :aria-label="label">
      <button
        v-for="action in actions"
        :key="action.label"
        type="button"
        role="menuitem"
        :class="{ danger: action.danger }"
        @click="action.run"
      >
        <AppIcon :path="action.icon" />
        <span>{{ action.label }}</span>
        <span v-if="action.key" class="key" aria-hidden="true">{{ action.key }}</span>
      </button>
    </div>
  </v-menu>
</template>

<style scoped>
.menu-button {
  display: inline-flex;
  align-items: center;
  justify-content: center;
  width: 28px;
  height: 28px;
  border-radius: var(--corner);
  color: var(--quiet);
}
.menu-button:hover,
.menu-button:focus-visible,
.menu-button[aria-expanded='true'] {
  color: var(--ink);
  background: color-mix(in srgb, var(--brass) 16%, transparent);
}
.danger {
  color: var(--error);
}
</style>
