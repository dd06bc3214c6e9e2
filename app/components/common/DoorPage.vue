<script setup lang="ts">
/** A page that stands before the shelf: the mark, the name, and one thing to be done. */
</script>

<template>
  <main class="before-shelf">
    <header>
      <AppMark :size="72" />
      <h1>Ornate Phasor</h1>
      <ThemeButton />
    </header>
    <slot />
  </main>
</template>

<style scoped>
.before-shelf {
  max-width: 440px;
  margin: 12vh auto 0;
  padding: 0 24px;
}
header {
  display: flex;
  align-items: center;
  gap: 16px;
  padding-bottom: 16px;
  border-bottom: 3px double var(--brass);
}
h1 {
  font-size: 28px;
  flex: 1;
}
</style>
