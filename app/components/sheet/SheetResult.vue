<script setup lang="ts">
import type { Result } from '#core/exchange/report'

/** The result of a line on the sheet, in the forms that were chosen; an error is never left out. */
defineProps<{ result: Result; problem: string | null; typed: boolean }>()
</script>

<template>
  <span v-if="problem !== null" class="words"><b>Error:</b> {{ problem }}</span>
  <template v-else-if="result.kind === 'value'">
    <span v-for="(form, k) in result.forms" :key="k" class="form">
      <template v-if="!typed"><ReadingMath :latex="(k > 0 ? '{}= ' : '') + form.latex" /></template>
      <code v-else>{{ k > 0 ? '= ' : '' }}{{ form.text }}</code>
    </span>
  </template>
  <span v-else-if="result.kind === 'check'" class="words">{{ result.pass ? '✓' : '✗' }} {{ result.text }}</span>
  <span v-else-if="result.kind === 'words'" class="words">{{ result.text }}</span>
</template>

<style scoped>
.form {
  display: block;
}
.words {
  white-space: normal;
  overflow-wrap: anywhere;
}
code {
  font-family: var(--mono);
  font-size: 12.5px;
  overflow-wrap: anywhere;
  white-space: pre-wrap;
}
</style>
