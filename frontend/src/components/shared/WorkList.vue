<script setup lang="ts">
// Long work, in one place: each with its progress and a way to call it off.

import { ElProgress } from 'element-plus'

import { useWork } from '../../stores/work'

const work = useWork()
</script>

<template>
  <div class="work" role="status" aria-label="Under way">
    <div v-for="one in work.running" :key="one.id">
      <span class="label">{{ one.label }}</span>
      <ElProgress :percentage="Math.round(100 * one.share)" :show-text="false" :stroke-width="6" :aria-label="one.label" />
      <button type="button" class="link" @click="one.cancel">Cancel</button>
    </div>
  </div>
</template>

<style scoped>
.work {
  position: fixed;
  top: 58px;
  left: 50%;
  z-index: 3050;
  width: max-content;
  max-width: min(560px, 90vw);
  transform: translateX(-50%);
}

/* Only what takes long is told of. */
.work > div {
  display: grid;
  grid-template-columns: minmax(0, auto) 140px auto;
  gap: 12px;
  align-items: center;
  margin-bottom: 6px;
  padding: 7px 14px;
  border: 1px solid var(--rule);
  border-radius: 6px;
  background: var(--card);
  box-shadow: 0 4px 14px rgb(30 42 47 / 30%);
  animation: appear 0s 0.35s backwards;
}

@keyframes appear {
  from {
    visibility: hidden;
  }
}

.label {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
