<script setup lang="ts">
import { mdiChartLine, mdiChartScatterPlot, mdiPin, mdiPinOutline } from '@mdi/js'
import { useNarrow } from '~/composables/narrow'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'

/** The plates of the folio: one large, all of them in small below it. */
const folio = useFolioStore()
const plates = usePlatesStore()
const narrow = useNarrow()
const NEW = [
  { label: 'Plane', icon: mdiChartScatterPlot, run: () => plates.addPlane() },
  { label: 'Curve', icon: mdiChartLine, run: () => plates.addCurve() },
]
</script>

<template>
  <section class="plates" aria-label="Plates">
    <PlanePlate
      v-if="plates.plate.kind === 'plane'"
      :key="plates.plate.id"
      :plate="plates.plate"
      :number="plates.number"
    />
    <LazyCurvePlate v-else :key="plates.plate.id" :plate="plates.plate" :number="plates.number" />
    <VernierScale v-if="!narrow" />
    <nav class="strip" aria-label="Plates of the folio">
      <div class="room">
        <ol v-if="plates.all.length > 1">
          <li v-for="(plate, k) in plates.all" :key="plate.id">
            <v-btn
              :data-tip="plate.caption"
              variant="text"
              class="mini"
              :aria-pressed="plate.id === plates.plate.id"
              :aria-label="`Plate ${k + 1}: ${plate.caption}`"
              @click="plates.choose(plate.id)"
            >
              <PlateMini v-if="plate.kind === 'plane'" :plate="plate" />
              <CurveMini v-else :plate="plate" />
              <span class="number">{{ k + 1 }}</span>
            </v-btn>
          </li>
        </ol>
      </div>
      <MenuButton v-if="folio.writable" label="New plate" words="New plate" :actions="NEW" />
      <v-btn
        v-if="plates.all.length > 1"
        :data-tip="
          plates.pinned
            ? 'This plate stays: let it follow the line again'
            : 'Keep this plate in sight whichever line is current'
        "
        class="pin"
        variant="text"
        :aria-label="plates.pinned ? 'Unpin the plate' : 'Pin the plate'"
        :aria-pressed="plates.pinned"
        @click="plates.pinned = !plates.pinned"
      >
        <AppIcon :path="plates.pinned ? mdiPin : mdiPinOutline" />
      </v-btn>
    </nav>
  </section>
</template>

<style scoped>
.plates {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.strip {
  display: flex;
  align-items: center;
  gap: 4px 8px;
  flex: none;
  padding-top: 4px;
}
/* As many small plates as are whole; the others are scrolled to. */
.room {
  flex: 1;
  min-width: 0;
  container-type: inline-size;
}
ol {
  list-style: none;
  display: flex;
  gap: 8px;
  margin: 0;
  padding: 2px;
  width: calc(round(down, 100cqw + 4px, 106px) - 4px);
  overflow-x: auto;
  scroll-snap-type: x mandatory;
  scrollbar-width: thin;
}
li {
  flex: none;
  scroll-snap-align: start;
  scroll-margin-left: 2px;
}
.v-btn.mini {
  position: relative;
  min-height: 0;
  padding: 0;
  border: 1px solid var(--rule);
  line-height: 0;
}
.v-btn.mini[aria-pressed='true'] {
  border-color: var(--brass);
  box-shadow: 0 0 0 1px var(--brass);
}
.number {
  position: absolute;
  left: 1px;
  top: 1px;
  line-height: 1.2;
  font-family: var(--serif);
  font-size: 14px;
  font-weight: 600;
  padding: 0 4px;
  background: var(--leaf);
}
.strip > .v-btn {
  flex: none;
}
</style>
