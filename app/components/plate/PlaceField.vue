<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { usePlatesStore } from '~/stores/plates'
import { useResultsStore } from '~/stores/results'

/** A value of the range that is typed: every line is read along there, between the points of the sweep too. */
const props = defineProps<{ name: string }>()
const plates = usePlatesStore()
const results = useResultsStore()

const mine = computed(() => (plates.along?.name === props.name ? plates.along : null))
const problem = computed(() => (mine.value?.entry ? (results.placed?.problem ?? null) : null))
const typed = ref(mine.value?.entry ?? '')
watch(mine, (now) => (typed.value = now?.entry ?? ''))

function read(): void {
  // A field that is only gone through changes nothing.
  if (typed.value.trim() !== (mine.value?.entry ?? '')) plates.readAt(props.name, typed.value)
}
</script>

<template>
  <div class="place-field">
    <v-text-field
      v-model="typed"
      :label="`read at ${name} =`"
      class="entry"
      placeholder="any value"
      autocomplete="off"
      spellcheck="false"
      :error="problem !== null"
      @keydown.enter="read"
      @keydown.esc.stop="plates.endReading()"
      @change="read"
    />
    <span class="why" role="status">{{ problem ?? '' }}</span>
  </div>
</template>

<style scoped>
.place-field {
  flex: none;
  padding-top: 8px;
  display: flex;
  align-items: center;
  gap: 8px;
}
.entry {
  flex: none;
  width: 168px;
}
.entry :deep(input) {
  font-family: var(--mono);
}
.why {
  font-size: 13px;
  color: var(--error);
}
</style>
