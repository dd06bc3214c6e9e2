<script setup lang="ts">
import { mdiArrowLeft, mdiArrowRight, mdiClose } from '@mdi/js'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { readoutText } from '#core/format/readout'
import { definedAbove } from '~/lines/nameIndex'
import { useDeskStore } from '~/stores/desk'
import { useFolioStore } from '~/stores/folio'
import { usePlatesStore } from '~/stores/plates'
import { useResultsStore } from '~/stores/results'

/**
 * Strolling: the folio from the top, one line at a time, with what each line
 * takes from above and what it adds to the index and the plates.
 */
const desk = useDeskStore()
const folio = useFolioStore()
const results = useResultsStore()
const plates = usePlatesStore()
const bar = ref<HTMLElement | null>(null)

const at = computed(() => desk.stroll ?? 0)
const line = computed(() => folio.lines[at.value] ?? null)
const view = computed(() => (line.value ? (results.views.get(line.value.id) ?? null) : null))
const letter = computed(() => folio.conventions.letter)

/** The names it reads, with the values they have there. */
const taken = computed(() =>
  (view.value?.uses ?? []).flatMap((name) => {
    const index = definedAbove(folio.lines, results.views, name, at.value)
    const source = folio.lines[index]
    const shown = source ? results.views.get(source.id) : undefined
    return shown ? [{ name, number: index + 1, value: readoutText(shown.readout) }] : []
  }),
)
const adds = computed(() => {
  const shown = view.value
  if (!line.value || line.value.note || !shown) return ['A note: it adds nothing to the index.']
  if (shown.problem) return [shown.problem.message]
  const told: string[] = []
  if (shown.name !== null) {
    const earlier = folio.lines.slice(0, at.value).some((l) => results.views.get(l.id)?.name === shown.name)
    told.push(earlier ? `The index has another ${shown.name} from here on.` : `The index gains ${shown.name}.`)
  }
  if (plates.inks.has(shown.id)) told.push(`The plane gains ${shown.name}.`)
  if (shown.pass !== null) told.push(shown.pass ? 'The check passes.' : 'The check does not pass.')
  if (told.length === 0)
    told.push(
      shown.kind === 'remark' || shown.kind === 'empty'
        ? 'A remark: nothing is reckoned here.'
        : 'A result without a name.',
    )
  return told
})

function go(to: number): void {
  const last = folio.lines.length - 1
  desk.stroll = Math.max(0, Math.min(last, to))
  const target = folio.lines[desk.stroll]
  if (target) folio.reveal(target.id)
}

/** The working of each line that the stroll comes to, where it is asked for. */
const withWorking = ref(false)
watch([withWorking, line], ([on, now]) => {
  if (!on) desk.show('plates')
  else if (now && !now.note) desk.openWorking(now.id)
  if (on) desk.part = 'ledger'
})

function leave(): void {
  desk.stroll = null
}

function onKey(event: KeyboardEvent): void {
  const elsewhere =
    event.target instanceof Element && event.target.closest('.v-overlay, input, [role=separator], canvas')
  if (event.altKey || event.ctrlKey || event.metaKey || elsewhere) return
  const steps: Readonly<Record<string, () => void>> = {
    ArrowRight: () => go(at.value + 1),
    ArrowDown: () => go(at.value + 1),
    ' ': () => go(at.value + 1),
    ArrowLeft: () => go(at.value - 1),
    ArrowUp: () => go(at.value - 1),
    Home: () => go(0),
    End: () => go(folio.lines.length - 1),
    Escape: leave,
  }
  const step = event.key === ' ' && event.target instanceof HTMLButtonElement ? undefined : steps[event.key]
  if (!step) return
  event.preventDefault()
  event.stopPropagation()
  step()
}

onMounted(async () => {
  window.addEventListener('keydown', onKey, true)
  desk.show('plates')
  desk.part = 'ledger'
  go(at.value)
  await nextTick()
  bar.value?.focus()
})
onBeforeUnmount(() => window.removeEventListener('keydown', onKey, true))
watch(at, async () => {
  await nextTick()
  document.querySelector('.row.strolled')?.scrollIntoView({ block: 'nearest' })
  bar.value?.focus()
})
</script>

<template>
  <section ref="bar" class="stroll" aria-label="Stroll" tabindex="-1">
    <div class="told" role="status">
      <p class="place">Line {{ at + 1 }} of {{ folio.lines.length }}</p>
      <p v-for="text in adds" :key="text" :class="{ problem: view?.problem }">{{ text }}</p>
      <p v-if="taken.length > 0" class="taken">
        takes
        <span v-for="item in taken" :key="item.name" class="item"
          >{{ item.name }}<template v-if="item.value"> = <ValueText :text="item.value" :letter="letter" /></template>
          <span class="from">{{ ' ' }}(line {{ item.number }})</span></span
        >
      </p>
    </div>
    <div class="steps">
      <v-checkbox v-model="withWorking" label="With the working" />
      <v-btn :disabled="at === 0" @click="go(at - 1)"> <AppIcon :path="mdiArrowLeft" />Back </v-btn>
      <v-btn color="primary" variant="flat" :disabled="at >= folio.lines.length - 1" @click="go(at + 1)">
        Next<AppIcon :path="mdiArrowRight" />
      </v-btn>
      <v-btn variant="text" @click="leave"><AppIcon :path="mdiClose" />End the stroll</v-btn>
    </div>
  </section>
</template>

<style scoped>
.stroll {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 24px;
  align-items: center;
  justify-content: space-between;
  padding: 12px 16px;
  background: var(--leaf);
  border-top: 3px double var(--brass);
}
.stroll:focus-visible {
  outline-offset: -3px;
}
.told p {
  margin: 0;
}
.place {
  font-family: var(--serif);
  font-style: italic;
  color: var(--quiet);
  font-size: 14px;
}
.taken {
  font-size: 14px;
  color: var(--quiet);
}
.item {
  margin-right: 12px;
  color: var(--ink);
}
.from {
  margin-left: 4px;
  color: var(--quiet);
}
.problem {
  color: var(--error);
}
.steps {
  display: flex;
  gap: 8px;
}
</style>
