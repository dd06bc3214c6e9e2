<script setup lang="ts">
/** The keys of the folio page. */
const open = defineModel<boolean>({ required: true })
const GROUPS = [
  {
    title: 'In a line',
    keys: [
      ['Enter', 'keep the line and go to the next'],
      ['Esc', 'leave the line as it was'],
      ['↑ ↓', 'keep the line and go to the one above or below'],
      ['Tab', 'take the marked completion while its list is open'],
      ['Alt+Enter', 'apply the fix that is offered'],
      ['/_ and deg', 'become ∠ and °'],
    ],
  },
  {
    title: 'Lines',
    keys: [
      ['Ctrl+Enter', 'new line below'],
      ['Ctrl+Shift+Enter', 'new line above'],
      ['Alt+↑ Alt+↓', 'move the line'],
      ['Alt+Del', 'delete the line'],
      ['Backspace', 'in an empty line: take it away'],
      ['Ctrl+Z', 'undo'],
      ['Ctrl+Y', 'redo, also Ctrl+Shift+Z'],
    ],
  },
  {
    title: 'On the plane',
    keys: [
      ['arrow keys', 'move the picture'],
      ['+ −', 'zoom'],
      ['0', 'show all values'],
      ['Esc', 'take a drag back'],
    ],
  },
] as const
</script>

<template>
  <v-dialog v-model="open" aria-label="Keys" max-width="620">
    <div class="sheet keys">
      <h2>Keys</h2>
      <section v-for="group in GROUPS" :key="group.title">
        <h3>{{ group.title }}</h3>
        <dl>
          <template v-for="[name, does] in group.keys" :key="name">
            <dt>
              <span class="key">{{ name }}</span>
            </dt>
            <dd>{{ does }}</dd>
          </template>
        </dl>
      </section>
      <button type="button" class="framed-button" @click="open = false">Close</button>
    </div>
  </v-dialog>
</template>

<style scoped>
.keys {
  padding: 24px;
  max-height: 86vh;
  overflow: auto;
}
h2 {
  font-size: 21px;
}
h3 {
  font-size: 16px;
  font-style: italic;
  font-weight: 500;
  margin: 16px 0 4px;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 4px 16px;
  margin: 0;
}
dd {
  margin: 0;
}
.framed-button {
  margin-top: 16px;
}
</style>
