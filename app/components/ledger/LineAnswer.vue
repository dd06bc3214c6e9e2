<script setup lang="ts">
import { computed } from 'vue'
import type { LineView } from '#core/views/lineView'
import { useLineCopies } from '~/composables/lineCopies'
import { usePlateActions } from '~/composables/plateActions'
import { isWide } from '~/lines/wide'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import type { MenuAction } from '~/components/common/MenuButton.vue'
import { mdiRenameOutline } from '@mdi/js'

/** What a group of equations was solved for: one sought name with its value, as a row below determine. */
const props = defineProps<{ view: LineView; number: number; place: number }>()
const folio = useFolioStore()
const plates = usePlatesStore()
const desk = useDeskStore()
const { copies } = useLineCopies()
const { actionsFor } = usePlateActions()

const hue = computed(() => plates.inks.get(props.view.id)?.hue ?? null)
/** What is wider than the columns goes on below its name. */
const broad = computed(() => isWide(props.view.readout))
const row = computed(() => ({ gridRow: props.place + 2 }))

function actions(): readonly MenuAction[] {
  const { id, name } = props.view
  const rename: MenuAction[] = name ? [{ label: `Rename ${name} everywhere`, icon: mdiRenameOutline, run: () => (desk.renaming = name) }] : [] // prettier-ignore
  return [...rename, ...actionsFor(id), ...copies(id)]
}
</script>

<template>
  <span
    class="stroke"
    :class="{ hued: hue !== null }"
    :style="{ ...row, '--own-hue': hue === null ? undefined : `var(--hue-${hue + 1})` }"
    aria-hidden="true"
  />
  <div
    class="body answer"
    :class="{ broad }"
    :style="row"
    role="group"
    :aria-label="`${view.name}, found by line ${number}`"
  >
    <div class="entry"><ReadingMath class="sought-name" :latex="`${view.reading} =`" /></div>
    <div class="outcome">
      <LineResult
        :view="view"
        :number="number"
        :letter="folio.conventions.letter"
        :digits="folio.conventions.digits"
        :hue="hue"
      />
    </div>
  </div>
  <div class="row-menu" :style="row">
    <MenuButton tabindex="-1" :label="`Actions for ${view.name}`" :actions="actions" />
  </div>
</template>

<style scoped>
.stroke {
  grid-column: 1;
}
.answer {
  grid-column: 3;
}
.row-menu {
  grid-column: 4;
}
.entry {
  align-items: center;
  justify-content: flex-end;
  padding: 4px 12px 4px 4px;
}
.broad {
  display: flex;
  flex-wrap: wrap;
}
.broad .entry {
  flex: 1 1 auto;
}
.broad .outcome {
  display: block;
  align-self: center;
  max-width: 100%;
  min-width: min(100%, calc(64px + var(--rectangular-width) + var(--polar-width)));
  border-left: 0;
}
</style>
