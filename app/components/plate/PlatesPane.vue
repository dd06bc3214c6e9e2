<script setup lang="ts">
import { mdiPin, mdiPinOutline, mdiPlus } from '@mdi/js'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'

/** The plates of the folio: one large, all of them in small below it. */
const folio = useFolioStore()
const plates = usePlatesStore()
</script>

<template>
  <section class="plates" aria-label="Plates">
    <PlanePlate :key="plates.plate.id" :plate="plates.plate" :number="plates.number" />
    <nav class="strip" aria-label="Plates of the folio">
      <ol v-if="plates.all.length > 1">
        <li v-for="(plate, k) in plates.all" :key="plate.id">
          <button
            type="button"
            class="mini"
            :aria-pressed="plate.id === plates.plate.id"
            :aria-label="`Plate ${k + 1}: ${plate.caption}`"
            :title="plate.caption"
            @click="plates.choose(plate.id)"
          >
            <PlateMini :plate="plate" />
            <span class="number">{{ k + 1 }}</span>
          </button>
        </li>
      </ol>
      <button v-if="folio.writable" type="button" class="plain-button" @click="plates.addPlane()">
        <AppIcon :path="mdiPlus" />New plane
      </button>
      <button
        v-if="plates.all.length > 1"
        type="button"
        class="plain-button pin"
        :aria-pressed="plates.pinned"
        :title="
          plates.pinned
            ? 'This plate stays: let it follow the line again'
            : 'Keep this plate in sight whichever line is current'
        "
        @click="plates.pinned = !plates.pinned"
      >
        <AppIcon :path="plates.pinned ? mdiPin : mdiPinOutline" />{{ plates.pinned ? 'Pinned' : 'Pin' }}
      </button>
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
ol {
  list-style: none;
  display: flex;
  gap: 8px;
  margin: 0;
  padding: 2px;
  overflow-x: auto;
  scrollbar-width: thin;
}
.mini {
  position: relative;
  display: block;
  border: 1px solid var(--rule);
  line-height: 0;
}
.mini[aria-pressed='true'] {
  border-color: var(--brass);
  box-shadow: 0 0 0 1px var(--brass);
}
.number {
  position: absolute;
  left: 4px;
  top: 2px;
  line-height: 1.2;
  font-family: var(--serif);
  font-size: 14px;
  font-weight: 600;
}
.pin[aria-pressed='true'] {
  background: var(--rail);
}
.strip .plain-button {
  flex: none;
}
</style>
