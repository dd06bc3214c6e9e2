<script setup lang="ts">
import { mdiDotsVertical, mdiMenuDown } from '@mdi/js'
import { computed, nextTick, ref } from 'vue'

/** Three dots, or words, that open a small sheet of actions; nothing of the sheet is made before it is asked for. */
export interface MenuAction {
  readonly label: string
  readonly icon?: string
  /** Whether it is the choice that is on, where the actions are choices. */
  readonly on?: boolean
  readonly key?: string
  readonly danger?: boolean
  readonly run: () => void
}
defineOptions({ inheritAttrs: false })
const props = defineProps<{
  label: string
  actions: readonly MenuAction[] | (() => readonly MenuAction[])
  words?: string
}>()
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
    v-bind="$attrs"
    type="button"
    class="menu-button"
    :class="{ worded: words }"
    :aria-label="words ? undefined : label"
    aria-haspopup="menu"
    :aria-expanded="open"
    @click.stop="toggle"
  >
    {{ words }}<AppIcon :path="words ? mdiMenuDown : mdiDotsVertical" />
  </button>
  <LazyMenuSheet v-if="asked && button" v-model="open" :target="button" :label="label" :actions="shown" />
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
.menu-button.worded {
  width: auto;
  min-height: 36px;
  padding: 0 4px 0 10px;
  color: var(--ink);
}
.menu-button:hover,
.menu-button:focus-visible,
.menu-button[aria-expanded='true'] {
  color: var(--ink);
  background: color-mix(in srgb, var(--brass) 16%, transparent);
}
</style>
