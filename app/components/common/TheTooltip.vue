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

function show(element: HTMLElement, delay: number): void {
  const words = element.dataset.tip ?? ''
  if (element === target.value && open.value) return
  hide()
  if (words === '') return
  target.value = element
  waiting = setTimeout(() => {
    text.value = words
    open.value = true
    described(element).setAttribute('aria-describedby', ID)
  }, delay)
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
  if (element) show(element, DELAY)
  else if (!target.value?.matches(':focus-within')) hide()
}
function focused(event: FocusEvent): void {
  const element = tipped(event)
  if (element?.matches(':focus-visible, :has(:focus-visible)')) show(element, DELAY)
  else hide()
}
function escaped(event: KeyboardEvent): void {
  if (event.key === 'Escape') hide()
}

onMounted(() => {
  document.addEventListener('pointerover', over)
  document.addEventListener('pointerdown', hide)
  document.addEventListener('focusin', focused)
  document.addEventListener('focusout', hide)
  document.addEventListener('keydown', escaped)
})
onBeforeUnmount(() => {
  hide()
  document.removeEventListener('pointerover', over)
  document.removeEventListener('pointerdown', hide)
  document.removeEventListener('focusin', focused)
  document.removeEventListener('focusout', hide)
  document.removeEventListener('keydown', escaped)
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
