<script setup lang="ts">
import { mdiDotsVertical } from '@mdi/js'
import { computed, nextTick, ref } from 'vue'

/** Three dots that open a small sheet of actions; nothing of the sheet is made before it is asked for. */
export interface MenuAction {
  readonly label: string
  readonly icon: string
  readonly key?: string
  readonly danger?: boolean
  readonly run: () => void
}
const props = defineProps<{ label: string; actions: readonly MenuAction[] | (() => readonly MenuAction[]) }>()
const asked = ref(false)
const open = ref(false)
const button = ref<HTMLButtonElement | null>(null)
/** What can be done may become more while the sheet is open: a value that was still being reckoned has come. */
const shown = computed<readonly MenuAction[]>(() => {
  if (!asked.value) return []
  return typeof props.actions === 'function' ? props.actions() : props.actions
})

async function toggle(): Promise<void> {
  asked.value = true
  await nextTick()
  open.value = !open.value
}
</script>

<template>
  <button
    ref="button"
    type="button"
    class="menu-button"
    :aria-label="label"
    aria-haspopup="menu"
    :aria-expanded="open"
    @click.stop="toggle"
  >
    <AppIcon :path="mdiDotsVertical" />
  </button>
  <v-menu
    v-if="asked && button"
    v-model="open"
    :target="button"
    :open-on-click="false"
    location="bottom end"
    max-height="80vh"
  >
    <v-list role="menu" :aria-label="label">
      <v-list-item
        v-for="action in shown"
        :key="action.label"
        role="menuitem"
        tabindex="0"
        :class="{ danger: action.danger }"
        :title="action.label"
        @click="action.run"
      >
        <template #prepend><AppIcon :path="action.icon" /></template>
        <template v-if="action.key" #append
          ><span class="key" aria-hidden="true">{{ action.key }}</span></template
        >
      </v-list-item>
    </v-list>
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
</style>
