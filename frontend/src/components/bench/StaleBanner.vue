<script setup lang="ts">
import { useRouter } from 'vue-router'

import { useBench } from '../../stores/bench'

const bench = useBench()
const router = useRouter()

async function keepAsCopy(): Promise<void> {
  const id = await bench.keepAsCopy()
  if (id) await router.push({ name: 'bench', params: { id } })
}
</script>

<template>
  <div class="stale" role="alert">
    <span>This finish was changed in another window.</span>
    <button type="button" class="action" @click="bench.loadNewer">Load the newer one</button>
    <button type="button" class="action" @click="keepAsCopy">Keep mine as a copy</button>
  </div>
</template>

<style scoped>
.stale {
  position: absolute;
  inset: 0 0 auto;
  z-index: 5;
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 10px 14px;
  background: var(--persimmon);
  color: #ffffff;
  font-weight: 600;
}

.stale span {
  flex: 1;
}

.stale .action {
  color: var(--ink);
}
</style>
