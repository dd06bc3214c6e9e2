<script setup lang="ts">
import { mdiAlertOutline, mdiCheck, mdiClose, mdiHelp } from '@mdi/js'
import { computed, shallowRef, watch } from 'vue'
import type { Chain, Link, LinkState } from '#core/working/chain'
import { useDeskStore } from '~/stores/desk'
import { useResultsStore } from '~/stores/results'

/** Check my working: several lines, each of which should equal the next; the first that breaks is marked. */
const props = defineProps<{ line: string }>()
const desk = useDeskStore()
const results = useResultsStore()

const chain = shallowRef<Chain | null>(null)
const text = computed({ get: () => desk.chainText, set: (to: string) => (desk.chainText = to) })
const lines = computed(() => text.value.split('\n'))

let asked = 0
async function check(): Promise<void> {
  const mine = (asked += 1)
  const found = text.value.trim() === '' ? null : await results.checkedChain(props.line, lines.value)
  if (mine === asked) chain.value = found
}
const PAUSE = 250
let timer: ReturnType<typeof setTimeout> | null = null
watch(
  [text, () => props.line, () => results.views.get(props.line)],
  () => {
    if (timer !== null) clearTimeout(timer)
    timer = setTimeout(() => void check(), PAUSE)
  },
  { immediate: true },
)

const ICONS: Readonly<Record<LinkState, string>> = {
  exact: mdiCheck,
  rounded: mdiCheck,
  equivalent: mdiCheck,
  loose: mdiAlertOutline,
  breaks: mdiClose,
  unread: mdiHelp,
}
const SIGNS: Readonly<Record<LinkState, string>> = { exact: '=', rounded: '≈', equivalent: '⇔', loose: '≈', breaks: '≠', unread: '?' } // prettier-ignore
const isBad = (link: Link): boolean => link.state === 'breaks' || link.state === 'unread'
const verdict = computed(() => {
  const found = chain.value
  if (!found || found.links.length === 0) return ''
  if (found.broken === null) return found.links.some((l) => l.state === 'loose') ? 'Every link holds, one of them loosely.' : 'Every link holds.' // prettier-ignore
  return `Link ${found.broken + 1} breaks.`
})
const EXAMPLE = 'Z = (3 + 4j)*(1 - 2j)\n= 3 - 6j + 4j + 8\n= 11 - 2j'
</script>

<template>
  <div class="chain">
    <v-textarea
      v-model="text"
      class="code"
      label="My working, line by line"
      :placeholder="EXAMPLE"
      rows="4"
      auto-grow
      max-rows="10"
      spellcheck="false"
      autocomplete="off"
      hide-details
    />
    <p class="quiet">
      One line after another, or parted by =. A decimal stands for what rounds to it. Names are those of the folio above
      this line; equations in an unknown are compared by their solutions.
    </p>
    <p class="verdict" role="status" :class="{ bad: chain?.broken !== null && chain !== null }">{{ verdict }}</p>
    <ol v-if="chain" class="sides" aria-label="Links of my working">
      <li v-for="(side, k) in chain.sides" :key="k">
        <div
          v-if="k > 0 && chain.links[k - 1]"
          class="link"
          :class="{
            bad: isBad(chain.links[k - 1]!),
            broken: chain.broken === k - 1,
            after: chain.broken !== null && k - 1 > chain.broken,
          }"
        >
          <AppIcon :path="ICONS[chain.links[k - 1]!.state]" />
          <b class="sign">{{ SIGNS[chain.links[k - 1]!.state] }}</b>
          <span>{{ chain.links[k - 1]!.says }}</span>
          <ul v-if="chain.links[k - 1]!.slips.length > 0" class="slips" aria-label="Slips that give this figure">
            <li v-for="slip in chain.links[k - 1]!.slips" :key="slip.slip">{{ slip.text }}</li>
          </ul>
        </div>
        <code>{{ side.text }}</code>
        <span v-if="side.problem" class="problem">{{ side.problem }}</span>
        <span v-else-if="side.value !== '' && side.value !== side.text" class="value">{{ side.value }}</span>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.chain {
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding-top: 8px;
}
.quiet {
  margin: 6px 0;
  font-size: 14px;
  color: var(--quiet);
}
.verdict {
  min-height: 1.5em;
  margin: 4px 0;
  font-family: var(--serif);
  font-weight: 600;
  color: var(--pass);
}
.verdict.bad {
  color: var(--error);
}
.sides {
  margin: 0;
  padding: 0;
  list-style: none;
  border-top: 3px double var(--brass);
}
.sides > li {
  padding: 4px 0;
}
code {
  font-family: var(--mono);
}
.value {
  margin-left: 16px;
  color: var(--quiet);
  font-family: var(--mono);
  font-size: 14px;
}
.value::before {
  content: '→ ';
}
.link {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 8px;
  padding: 2px 0 6px 8px;
  font-size: 14.5px;
  color: var(--pass);
}
.link > span {
  color: var(--ink);
}
.link.bad {
  color: var(--error);
}
.link.broken {
  border-left: 3px solid var(--error);
}
.link.after {
  opacity: 0.85;
}
.link .icon {
  align-self: center;
}
.slips {
  flex-basis: 100%;
  margin: 4px 0 0;
  padding-left: 28px;
  color: var(--ink);
}
.slips li {
  list-style: disc;
}
.problem {
  margin-left: 12px;
  color: var(--error);
}
</style>
