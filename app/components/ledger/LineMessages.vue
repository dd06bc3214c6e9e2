<script setup lang="ts">
import { computed, ref } from 'vue'
import type { ShownProblem } from '#core/views/lineView'
import type { Cause } from '~/composables/lineWords'
import { isProse } from '~/lines/prose'
import { useFolioStore } from '~/stores/folio'
import { useResultsStore } from '~/stores/results'
import { useSilenceStore } from '~/stores/silence'

/** What is said under a line: its error with fixes, or the first of its hints. */
const props = defineProps<{
  line: string
  problem: ShownProblem | null
  hints: readonly ShownProblem[]
  reachable: boolean
  editing: boolean
  /** What stands in the line, or is typed. */
  text: string
  /** The line was stopped and can be run again. */
  held: boolean
  /** The line whose error is the cause of this one. */
  cause: Cause | null
}>()
const emit = defineEmits<{ fix: [problem: ShownProblem, replacement: string]; cause: [] }>()
const folio = useFolioStore()
const results = useResultsStore()
const silence = useSilenceStore()

/** The line has its turn. */
const runs = computed(() => results.running === props.line)
const done = computed(() => (results.progress === null ? '' : `: ${Math.round(100 * results.progress)} %`))
/** What reads like a sentence is likely to be meant as one. */
const prose = computed(() => props.problem !== null && isProse(props.text))
/** While the line is typed what mends it is a stop of the Tab key; else the arrows go there within the row. */
const stops = computed(() => (props.editing ? 0 : -1))
const hint = computed(() => props.hints[0] ?? null)
/** A hint that was understood often enough is a mark only, until it is unfolded. */
const small = computed(() => hint.value !== null && silence.isSmall(folio.id, hint.value.code))
const unfolded = ref(false)
</script>

<template>
  <div v-if="problem?.code === 'postponed'" class="message postponed" role="status">
    <span>{{ runs ? `This line takes long and is being reckoned${done}…` : problem.message }}</span>
    <button :tabindex="stops" type="button" class="fix" @click="results.stopLine(line)">Stop it</button>
  </div>
  <div v-else-if="problem?.code === 'enclosure-loading'" class="message postponed" role="status">
    <span>{{ problem.message }}</span>
  </div>
  <div v-else-if="problem" class="message problem">
    <MarkBadge
      sign="!"
      tone="problem"
      explanation="Error: the line has no value until it is mended. The other lines go on."
    />
    <span>{{ problem.message }}</span>
    <button
      v-for="(fix, k) in problem.fixes"
      :key="fix.label"
      :tabindex="stops"
      type="button"
      class="fix"
      :title="fix.label"
      @mousedown.prevent
      @click="emit('fix', problem, fix.replacement)"
    >
      <FixLabel :fix="fix" /><span v-if="k === 0 && (editing || reachable)" class="key" aria-hidden="true"
        >Alt+Enter</span
      >
    </button>
    <button v-if="cause" :tabindex="stops" type="button" class="fix" @mousedown.prevent @click="emit('cause')">
      {{ problem.code === 'waits-for' ? 'mend' : 'go to' }} line {{ cause.index + 1
      }}<span v-if="problem.fixes.length === 0 && (editing || reachable)" class="key" aria-hidden="true"
        >Alt+Enter</span
      >
    </button>
    <button v-if="prose" :tabindex="stops" type="button" class="fix" @mousedown.prevent @click="folio.turn(line)">
      make it a note
    </button>
    <button v-if="held" :tabindex="stops" type="button" class="fix" @click="results.release(line)">run it again</button>
  </div>
  <div v-else-if="hint" class="message hint">
    <MarkBadge
      sign="i"
      tone="hint"
      explanation="Hint: the line is reckoned as it stands; this may not be what was meant."
    />
    <button v-if="small && !unfolded" :tabindex="stops" type="button" class="unfold" @click="unfolded = true">
      hint
    </button>
    <template v-else>
      <span>{{ hint.message }}</span>
      <button
        v-for="fix in hint.fixes"
        :key="fix.label"
        :tabindex="stops"
        type="button"
        class="fix"
        :title="fix.label"
        @click="emit('fix', hint, fix.replacement)"
      >
        <FixLabel :fix="fix" />
      </button>
      <button :tabindex="stops" type="button" class="understood" @click="silence.understand(folio.id, line, hint.code)">
        Understood
      </button>
      <span
        v-if="hints.length > 1"
        class="more"
        :title="
          hints
            .slice(1)
            .map((h) => h.message)
            .join(' ')
        "
        >+{{ hints.length - 1 }}</span
      >
    </template>
  </div>
</template>

<style scoped>
.message {
  grid-column: 3 / -1;
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 4px 10px;
  padding: 0 12px 10px 4px;
  font-size: 14px;
}
.problem {
  color: var(--error);
}
.postponed {
  color: var(--quiet);
}
.hint {
  color: var(--brass-text);
}
.fix {
  display: inline-flex;
  align-items: baseline;
  gap: 6px;
  padding: 0 8px;
  min-height: 24px;
  border: 1px solid currentcolor;
  border-radius: var(--corner);
  font-family: var(--mono);
  font-size: 13px;
}
.fix:hover {
  background: color-mix(in srgb, currentcolor 10%, transparent);
}
.understood,
.unfold {
  font-size: 13.5px;
  text-decoration: underline;
  text-underline-offset: 3px;
  color: var(--quiet);
}
.more {
  color: var(--quiet);
}
</style>
