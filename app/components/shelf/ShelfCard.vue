<script setup lang="ts">
import { mdiContentDuplicate, mdiDeleteOutline, mdiPencilOutline, mdiTrayArrowDown } from '@mdi/js'
import { computed } from 'vue'
import type { FolioCard } from '#shared/folio'
import type { MenuAction } from '~/components/common/MenuButton.vue'

const props = defineProps<{ card: FolioCard }>()
const emit = defineEmits<{ rename: []; duplicate: []; bin: []; save: [] }>()

const changed = computed(() => {
  const date = new Date(props.card.changedAt)
  const today = new Date().toDateString() === date.toDateString()
  const time = date.toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' })
  return today
    ? `today, ${time}`
    : date.toLocaleDateString(undefined, { day: 'numeric', month: 'long', year: 'numeric' })
})
const toBin: MenuAction = { label: 'Move to the bin', icon: mdiDeleteOutline, danger: true, run: () => emit('bin') }
const actions = computed<readonly MenuAction[]>(() =>
  props.card.damaged
    ? [toBin]
    : [
        { label: 'Rename', icon: mdiPencilOutline, run: () => emit('rename') },
        { label: 'Save as a file', icon: mdiTrayArrowDown, run: () => emit('save') },
        { label: 'Duplicate', icon: mdiContentDuplicate, run: () => emit('duplicate') },
        toBin,
      ],
)
</script>

<template>
  <article class="card">
    <div v-if="card.damaged" class="damaged">
      <span class="title">{{ card.title }}</span>
      <p>This folio is damaged. {{ card.damaged }} The others are not touched by it.</p>
      <a :href="`/api/folios/${card.id}/rescue`" download="folio.json" class="rescue"
        >Save what can be read as a file</a
      >
    </div>
    <NuxtLink v-else :to="`/folio/${card.id}`" class="open" :aria-label="`Open ${card.title}`">
      <CardThumbnail :card="card" />
      <span class="text">
        <span class="title">{{ card.title }}</span>
        <span class="facts">{{ card.lineCount === 1 ? '1 line' : `${card.lineCount} lines` }} · {{ changed }}</span>
        <code v-if="card.match" class="match">{{ card.match }}</code>
      </span>
    </NuxtLink>
    <div class="menu"><MenuButton :label="`Actions for ${card.title}`" :actions="actions" /></div>
  </article>
</template>

<style scoped>
.card {
  position: relative;
  border: 1px solid var(--edge);
  border-left: 5px double var(--brass);
  border-radius: var(--corner);
  background: var(--leaf);
  transition: border-color var(--fast);
}
.card:hover {
  border-color: var(--brass);
}
.open {
  display: block;
  color: inherit;
  text-decoration: none;
}
.text {
  display: block;
  padding: 10px 44px 12px 14px;
  border-top: 1px solid var(--rule);
}
.damaged {
  padding: 14px 44px 14px 14px;
}
.damaged p {
  margin: 6px 0 10px;
  font-size: 14px;
  color: var(--error);
}
.rescue {
  color: var(--teal);
  font-size: 14px;
}
.title {
  display: block;
  font-family: var(--serif);
  font-size: 18px;
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.facts {
  font-size: 14px;
  color: var(--quiet);
}
.match {
  display: block;
  margin-top: 4px;
  font-family: var(--mono);
  font-size: 13px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.menu {
  position: absolute;
  right: 8px;
  bottom: 14px;
}
</style>
