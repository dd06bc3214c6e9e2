<script setup lang="ts">
/** A small sign with its explanation on hover and focus. */
defineProps<{
  sign?: string
  /** Instead of a sign. */
  icon?: string
  explanation: string
  tone: 'exact' | 'rounded' | 'unit' | 'runs' | 'hint' | 'problem'
}>()
</script>

<template>
  <span
    class="badge"
    :class="`tone-${tone}`"
    tabindex="-1"
    role="note"
    :aria-label="explanation"
    :data-tip="explanation"
    @click.stop
    ><AppIcon v-if="icon" :path="icon" /><span v-else aria-hidden="true">{{ sign }}</span></span
  >
</template>

<style scoped>
.badge {
  position: relative;
  display: inline-grid;
  place-items: center;
  min-width: 18px;
  height: 18px;
  font-size: 15px;
  line-height: 1;
  cursor: help;
}
.badge:hover::after,
.badge:focus-visible::after {
  content: attr(data-tip);
  position: absolute;
  z-index: 5;
  top: calc(100% + 6px);
  left: -8px;
  width: max-content;
  max-width: 250px;
  padding: 6px 10px;
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  background: var(--leaf);
  color: var(--ink);
  font-family: var(--sans);
  font-size: 13.5px;
  font-weight: 400;
  line-height: 1.35;
  text-align: left;
  white-space: normal;
  box-shadow: 0 4px 16px rgb(20 30 40 / 18%);
}
.tone-exact {
  color: var(--teal);
}
.tone-rounded {
  color: var(--quiet);
}
.tone-unit {
  margin-left: 8px;
  padding: 0 4px;
  border: 1px solid var(--brass);
  border-radius: 9px;
  font-size: 12px;
  color: var(--brass-text);
  vertical-align: middle;
}
.tone-runs {
  flex: none;
  color: var(--brass-text);
}
.tone-hint,
.tone-problem {
  flex: none;
  border: 1.5px solid currentcolor;
  border-radius: 50%;
  font-family: var(--serif);
  font-size: 12px;
  font-weight: 700;
}
.tone-hint {
  color: var(--brass-text);
}
.tone-problem {
  color: var(--error);
}
</style>
