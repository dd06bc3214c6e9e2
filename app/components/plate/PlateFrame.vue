<script setup lang="ts">
/** The frame of a figure: a thin brass rule with a flourish in each corner, the picture in it, the caption below. */
defineProps<{ number: number; caption: string }>()
</script>

<template>
  <figure class="plate">
    <div class="page" :class="{ beside: $slots.settings }">
      <div class="main">
        <div class="frame">
          <svg
            v-for="corner in ['nw', 'ne', 'sw', 'se']"
            :key="corner"
            class="flourish"
            :class="corner"
            viewBox="0 0 26 26"
            aria-hidden="true"
          >
            <path d="M1 25V1H25M4.500 20V4.500H20M4.500 11c4 0 6.500-2.500 6.500-6.500" />
          </svg>
          <div class="picture"><slot /></div>
        </div>
        <figcaption>
          <span class="caption"
            ><b>Plate {{ number }}</b> {{ caption }}</span
          >
          <span class="tools"><slot name="tools" /></span>
          <slot name="legend" />
        </figcaption>
        <slot name="below" />
      </div>
      <div v-if="$slots.settings" class="settings"><slot name="settings" /></div>
    </div>
  </figure>
</template>

<style scoped>
.plate {
  margin: 0;
  display: flex;
  flex-direction: column;
  min-height: 0;
  flex: 1;
  container: plate / size;
}
.page,
.main {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-height: 0;
  min-width: 0;
}
/* The settings lie under the picture; beside it where the plate is wide. Picture and settings are both in sight. */
.settings {
  flex: none;
  height: 44%;
  margin-top: 6px;
  border-top: 3px double var(--brass);
  overflow: auto;
  scrollbar-width: thin;
}
@container plate (min-width: 760px) {
  .page.beside {
    flex-direction: row;
    gap: 12px;
  }
  .settings {
    width: 340px;
    height: auto;
    margin-top: 0;
    border-top: 0;
    border-left: 3px double var(--brass);
  }
}
.frame {
  position: relative;
  flex: 1;
  min-height: 180px;
  padding: 7px;
  border: 1px solid var(--brass);
  background: var(--leaf);
}
.flourish {
  position: absolute;
  width: 22px;
  height: 22px;
  fill: none;
  stroke: var(--brass);
  stroke-width: 1.1;
  z-index: 1;
  pointer-events: none;
}
.nw {
  top: 2px;
  left: 2px;
}
.ne {
  top: 2px;
  right: 2px;
  transform: scaleX(-1);
}
.sw {
  bottom: 2px;
  left: 2px;
  transform: scaleY(-1);
}
.se {
  bottom: 2px;
  right: 2px;
  transform: scale(-1);
}
.picture {
  position: absolute;
  inset: 7px;
  overflow: hidden;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 2px 8px;
  padding-top: 6px;
}
.caption {
  font-family: var(--serif);
  font-size: 15px;
  font-style: italic;
  color: var(--quiet);
}
.caption b {
  font-style: normal;
  color: var(--ink);
  margin-right: 6px;
}
.tools {
  display: flex;
  flex: none;
  margin-left: auto;
}
.tools :deep(.v-btn) {
  min-width: 32px;
}
@media (max-width: 599px) {
  .tools :deep(.v-btn) {
    padding: 4px 7px;
  }
}
</style>
