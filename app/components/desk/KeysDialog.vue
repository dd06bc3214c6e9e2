<script setup lang="ts">
import { KEY_GROUPS, KEYS } from '~/texts/keys'
import { useDeskStore } from '~/stores/desk'

/** The keys of the folio page, all on one leaf. */
const desk = useDeskStore()
</script>

<template>
  <SheetDialog v-model="desk.keysOpen" title="Keys" wide>
    <div class="groups">
      <section v-for="group in KEY_GROUPS" :key="group.title">
        <h3>{{ group.title }}</h3>
        <dl>
          <template v-for="name in group.keys" :key="name">
            <dt>
              <span v-for="key in KEYS[name].keys" :key="key" class="key">{{ key }}</span>
            </dt>
            <dd>{{ KEYS[name].does }}</dd>
          </template>
        </dl>
      </section>
    </div>
    <template #answers><v-btn @click="desk.keysOpen = false">Close</v-btn></template>
  </SheetDialog>
</template>

<style scoped>
.groups {
  columns: 2 340px;
  column-gap: 32px;
}
section {
  break-inside: avoid;
}
h3 {
  font-size: 16px;
  font-style: italic;
  font-weight: 500;
  margin: 16px 0 4px;
}
section:first-child h3 {
  margin-top: 0;
}
dl {
  display: grid;
  grid-template-columns: 128px 1fr;
  gap: 4px 12px;
  margin: 0;
  font-size: 14px;
}
dt {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  align-content: start;
}
dd {
  margin: 0;
}
</style>
