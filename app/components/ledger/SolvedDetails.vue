<script setup lang="ts">
import { mdiChevronDown, mdiChevronUp } from '@mdi/js'
import { ref, shallowRef, watch } from 'vue'
import type { LineView } from '#core/views/lineView'
import type { SolvedDetail } from '#core/views/solvedDetails'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'

/** How equations were solved: determinant, condition and residual, worked out once they are asked for. */
const props = defineProps<{ view: LineView; place: number; reachable: boolean }>()
const folio = useFolioStore()
const results = useResultsStore()
const open = ref(false)
const details = shallowRef<readonly SolvedDetail[]>([])

watch([open, () => props.view, () => folio.conventions], async () => {
  if (open.value) details.value = await results.solvedDetails(props.view.id)
})
</script>

<template>
  <div class="details" :style="{ gridRow: place + 2 }">
    <v-btn variant="text" size="small" :tabindex="reachable ? 0 : -1" :aria-expanded="open" @click="open = !open">
      <AppIcon :path="open ? mdiChevronUp : mdiChevronDown" />How it was solved
    </v-btn>
    <dl v-if="open">
      <div v-for="{ label, text } in details" :key="label">
        <dt>{{ label }}</dt>
        <dd>{{ text }}</dd>
      </div>
    </dl>
  </div>
</template>

<style scoped>
.details {
  grid-column: 3 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: flex-start;
  gap: 4px 16px;
  padding: 0 12px 8px 0;
}
dl {
  flex: 1 1 300px;
  margin: 0;
  padding-top: 5px;
  font-size: 14px;
}
dl > div {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
}
dt {
  color: var(--quiet);
}
dd {
  margin: 0;
}
</style>
