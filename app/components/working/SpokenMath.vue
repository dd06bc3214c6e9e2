<script setup lang="ts">
import { computed } from 'vue'
import { spokenMath } from '~/texts/spokenMath'

/** Typeset mathematics, with the words that say it beside it for those who cannot see it. */
const props = defineProps<{ latex: string }>()
const words = computed(() => spokenMath(props.latex))
</script>

<template>
  <span class="math">
    <span aria-hidden="true"><ReadingMath :latex="latex" :typed="words" words="beside it" /></span>
    <span class="visually-hidden">{{ words }}</span>
  </span>
</template>
