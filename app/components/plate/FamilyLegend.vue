<script setup lang="ts">
import { usePlatesStore } from '~/stores/plates'
import type { Plate } from '#shared/plate'

/** Which dash of a family is for which value, in the caption of its plate. */
defineProps<{ plate: Plate }>()
const plates = usePlatesStore()
const LENGTH = 34
</script>

<template>
  <ul v-if="plates.familyOn(plate).length > 0" class="family" aria-label="Members of the family">
    <li v-for="member in plates.familyOn(plate)" :key="member.label">
      <svg :width="LENGTH" height="8" aria-hidden="true">
        <line x1="0" y1="4" :x2="LENGTH" y2="4" :stroke-dasharray="member.dash.join(' ')" />
      </svg>
      {{ member.label }}
    </li>
  </ul>
</template>

<style scoped>
.family {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
  flex-basis: 100%;
  list-style: none;
  margin: 0;
  padding: 0;
  font-size: 14px;
  font-feature-settings: 'tnum';
}
li {
  display: flex;
  align-items: center;
  gap: 6px;
}
svg line {
  stroke: currentcolor;
  stroke-width: 1.8;
}
</style>
