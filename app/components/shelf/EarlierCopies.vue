<script setup lang="ts">
import { computed } from 'vue'
import type { CopiedFolio, EarlierCopy } from '#shared/copies'
import { useCopiesStore } from '~/stores/copies'
import { bytesText, countText, momentText } from '~/texts/moments'

/** Copies of all folios from earlier days: what is in them, and back onto the shelf. */
const copies = useCopiesStore()

const checked = computed(() => {
  const { check } = copies
  if (!check) return 'The data file has not been looked through yet.'
  return check.whole ? `The data file was whole when it was looked through (${momentText(check.at)}).` : ''
})

function about(copy: EarlierCopy): string {
  const folios = copy.folios === null ? 'cannot be read' : countText(copy.folios, 'folio')
  return [folios, bytesText(copy.bytes), ...(copy.kind === 'upgrade' ? ['from before an upgrade'] : [])].join(' · ')
}

const HERE: Readonly<Record<CopiedFolio['here'], string>> = {
  same: 'as it is here',
  other: 'changed here since',
  gone: 'not on the shelf',
}
</script>

<template>
  <section class="copies">
    <v-btn variant="text" :aria-expanded="copies.shown" @click="copies.shown = !copies.shown">
      {{ copies.shown ? '▾' : '▸' }} Earlier copies{{ copies.copies.length > 0 ? ` · ${copies.copies.length}` : '' }}
    </v-btn>
    <div v-if="copies.shown" class="inside">
      <p class="quiet">
        Every day on which something has changed all folios are copied, and before each upgrade; copies are kept for two
        weeks. What you bring back comes to stand beside what is here: nothing is replaced.
      </p>
      <p class="check">
        <span class="quiet">{{ checked }}</span>
        <v-btn :disabled="copies.checking" @click="copies.checkNow()">
          {{ copies.checking ? 'Looking through it…' : 'Look through it now' }}
        </v-btn>
      </p>
      <p v-if="copies.failed !== ''" class="failure" role="alert">{{ copies.failed }}</p>
      <p v-if="copies.said !== ''" role="status">{{ copies.said }}</p>
      <p v-if="copies.copies.length === 0" class="quiet">There is none yet: the first one is made soon.</p>
      <ul v-else class="list">
        <li v-for="copy in copies.copies" :key="copy.name">
          <div class="row">
            <span class="when">{{ momentText(copy.made) }}</span>
            <span class="quiet about">{{ about(copy) }}</span>
            <v-btn
              :disabled="copy.folios === null"
              :aria-expanded="copies.looked === copy.name"
              :aria-label="`What is in the copy of ${momentText(copy.made)}`"
              @click="copies.look(copy.name)"
            >
              {{ copies.looked === copy.name ? 'Close' : 'What is in it' }}
            </v-btn>
          </div>
          <div v-if="copies.looked === copy.name" class="folios">
            <p v-if="!copies.inside" class="quiet">Looking into it…</p>
            <template v-else>
              <p v-if="copies.inside.length === 0" class="quiet">The shelf was empty then.</p>
              <v-btn v-else :disabled="copies.bringing" @click="copies.bringBack(null)">
                {{ copies.bringing ? 'Bringing back…' : 'Bring all back' }}
              </v-btn>
              <ul>
                <li v-for="folio in copies.inside" :key="folio.id" class="row">
                  <span class="title">{{ folio.title }}</span>
                  <span class="quiet about">
                    {{ countText(folio.lines, 'line') }} · {{ HERE[folio.here]
                    }}{{ folio.binned ? ' · was in the bin' : '' }}
                  </span>
                  <v-btn
                    :disabled="copies.bringing"
                    :aria-label="`Bring ${folio.title} back`"
                    @click="copies.bringBack([folio.id])"
                  >
                    Bring back
                  </v-btn>
                </li>
              </ul>
            </template>
          </div>
        </li>
      </ul>
    </div>
  </section>
</template>

<style scoped>
.copies {
  margin-top: 24px;
  border-top: 1px solid var(--rule);
  padding-top: 8px;
}
.inside {
  max-width: 760px;
  padding: 0 12px;
}
p {
  margin: 8px 0;
}
.check {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
}
ul {
  list-style: none;
  margin: 8px 0;
  padding: 0;
}
.list > li {
  border-bottom: 1px solid var(--rule);
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  padding: 6px 0;
}
.when {
  min-width: 132px;
  font-family: var(--serif);
  font-size: 17px;
}
.about {
  flex: 1;
  min-width: 160px;
}
@media (max-width: 599px) {
  .row .v-btn {
    margin-left: auto;
  }
}
.folios {
  padding: 0 0 8px 16px;
  border-left: 3px double var(--brass);
  margin-bottom: 8px;
}
.title {
  flex: 1;
  min-width: 160px;
  font-family: var(--serif);
  font-size: 17px;
}
</style>
