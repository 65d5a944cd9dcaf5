<script setup lang="ts">
/** One station: rail and lanes at the left, what is done here at the right, the main action at the lower right. */
defineProps<{ title: string; asideLabel: string; wide?: boolean }>();
</script>

<template>
  <div class="bench" :class="{ wide }">
    <section class="work">
      <h1 class="d-sr-only" tabindex="-1">{{ title }}</h1>
      <slot />
    </section>
    <aside class="no-print" :aria-label="asideLabel">
      <div class="aside-body"><slot name="aside" /></div>
      <div class="aside-foot"><slot name="action" /></div>
    </aside>
    <Teleport defer to="#foot-keys"><slot name="keys" /></Teleport>
  </div>
</template>

<style scoped>
.bench {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  height: 100%;
}
.bench.wide {
  grid-template-columns: minmax(0, 1fr) 408px;
}
.work {
  position: relative;
  padding: 4px 18px 8px;
  overflow-y: auto;
  min-width: 0;
}
aside {
  border-left: 1px solid rgb(var(--v-theme-line));
  background: rgb(var(--v-theme-sheet));
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.aside-body {
  position: relative;
  flex: 1;
  overflow-y: auto;
  padding: 14px 16px;
  display: flex;
  flex-direction: column;
  gap: 12px;
}
.aside-body > :deep(*) {
  flex: none;
}
.aside-foot {
  padding: 10px 16px 14px;
  border-top: 1px solid rgb(var(--v-theme-line));
  display: flex;
  flex-direction: column;
  gap: 8px;
}
@media (max-width: 1100px) {
  .bench {
    grid-template-columns: minmax(0, 1fr) 292px;
  }
  .bench.wide {
    grid-template-columns: minmax(0, 1fr) 384px;
  }
  .work {
    padding: 4px 12px 8px;
  }
}
@media (max-width: 860px) {
  .bench,
  .bench.wide {
    grid-template-columns: 1fr;
    height: auto;
  }
  .work,
  .aside-body {
    overflow: visible;
  }
  aside {
    border-left: 0;
    border-top: 1px solid rgb(var(--v-theme-line));
  }
  /* The main action stays under the thumb. */
  .aside-foot {
    position: sticky;
    bottom: 0;
    background: rgb(var(--v-theme-sheet));
    z-index: 2;
  }
}
@media print {
  .bench {
    display: block;
    height: auto;
  }
}
</style>
