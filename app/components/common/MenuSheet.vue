<script setup lang="ts">
import { nextTick, ref, watch } from 'vue'
import { useFocusBack } from '~/composables/focusBack'
import type { MenuAction } from './MenuButton.vue'

/** The sheet of actions that a button opens: it takes the focus, arrows go through it, and it gives the focus back. */
const props = defineProps<{ target: HTMLElement; label: string; actions: readonly MenuAction[] }>()
const open = defineModel<boolean>({ required: true })
const sheet = ref<{ readonly $el: HTMLElement } | null>(null)
useFocusBack(
  () => open.value,
  () => props.target,
)

/** Frames in which the sheet must have come. */
const FRAMES = 30

const items = (): readonly HTMLElement[] => [...(sheet.value?.$el.querySelectorAll<HTMLElement>('[role^="menuitem"]') ?? [])] // prettier-ignore
/** The choice that is on has the focus, or the first. */
watch(
  open,
  async (now) => {
    // The sheet comes into the page some frames later, and may take the focus itself.
    for (let frame = 0; now && open.value && frame < FRAMES; frame += 1) {
      await nextTick()
      const all = items()
      const begin = all.find((item) => item.getAttribute('aria-checked') === 'true') ?? all[0]
      begin?.focus({ preventScroll: true })
      if (begin && document.activeElement === begin) return
      await new Promise((next) => requestAnimationFrame(next))
    }
  },
  { immediate: true },
)

function onKey(event: KeyboardEvent): void {
  const all = items()
  const at = all.findIndex((item) => item === document.activeElement)
  const to = { ArrowDown: at + 1, ArrowUp: at - 1, Home: 0, End: -1 }[event.key]
  if (to !== undefined) all.at(to % all.length)?.focus()
  else if (event.key === 'Tab') open.value = false
  else if (event.key.length === 1 && !event.ctrlKey && !event.altKey && !event.metaKey) begins(event.key, all, at)
  else return
  event.preventDefault()
  event.stopPropagation()
}

/** A letter goes to the next action that begins with it. */
function begins(letter: string, all: readonly HTMLElement[], at: number): void {
  const from = [...all.slice(at + 1), ...all.slice(0, at + 1)]
  from.find((item) => item.textContent?.trim().toLowerCase().startsWith(letter.toLowerCase()))?.focus()
}
</script>

<template>
  <v-menu v-model="open" :target="target" :open-on-click="false" location="bottom end" max-height="80vh">
    <v-list ref="sheet" role="menu" :aria-label="label" @keydown.capture="onKey">
      <v-list-item
        v-for="(action, k) in actions"
        :key="action.label"
        :role="action.on === undefined ? 'menuitem' : 'menuitemradio'"
        :aria-checked="action.on"
        :active="action.on"
        :tabindex="k === 0 ? 0 : -1"
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
