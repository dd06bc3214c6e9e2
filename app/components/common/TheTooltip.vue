<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref, shallowRef } from 'vue'

/**
 * The word beside whatever is pointed at or has the focus and says it in `data-tip`: one for the whole page, so that
 * no control makes one of its own.
 */
const DELAY = 350
const target = shallowRef<HTMLElement | null>(null)
const text = ref('')
const open = ref(false)
const ID = 'the-tooltip'
let waiting: ReturnType<typeof setTimeout> | null = null

function tipped(event: Event): HTMLElement | null {
  return event.target instanceof Element ? event.target.closest<HTMLElement>('[data-tip]') : null
}

/** The control itself: a screen reader hears the word with it. */
const described = (element: HTMLElement): Element => element.querySelector('input') ?? element

function show(element: HTMLElement): void {
  const words = element.dataset.tip ?? ''
  if (element === target.value) return
  hide()
  if (words === '') return
  target.value = element
  waiting = setTimeout(() => {
    text.value = words
    open.value = true
    described(element).setAttribute('aria-describedby', ID)
  }, DELAY)
}

function hide(): void {
  if (waiting !== null) clearTimeout(waiting)
  waiting = null
  const element = target.value
  if (element && open.value) described(element).removeAttribute('aria-describedby')
  open.value = false
  target.value = null
}

function over(event: PointerEvent): void {
  if (event.pointerType === 'touch') return
  const element = tipped(event)
  if (element) show(element)
  else if (!target.value?.matches(':focus-within')) hide()
}
function focused(event: FocusEvent): void {
  const element = tipped(event)
  if (element?.matches(':focus-visible, :has(:focus-visible)')) show(element)
  else hide()
}
function escaped(event: KeyboardEvent): void {
  if (event.key === 'Escape') hide()
}

const listening = new AbortController()
onMounted(() => {
  const { signal } = listening
  document.addEventListener('pointerover', over, { signal })
  document.addEventListener('pointerdown', hide, { signal })
  document.addEventListener('focusin', focused, { signal })
  document.addEventListener('focusout', hide, { signal })
  document.addEventListener('keydown', escaped, { signal })
})
onBeforeUnmount(() => {
  hide()
  listening.abort()
})
</script>

<template>
  <v-tooltip
    v-if="target && text !== ''"
    :id="ID"
    v-model="open"
    :target="target"
    :text="text"
    :aria-label="text"
    :open-on-hover="false"
    :transition="false"
  />
</template>
