<script setup lang="ts">
import { ref } from 'vue'

import { useCuttingErrand } from '../../composables/cuttingErrand'
import { useCutOut } from '../../stores/cutOut'

const cutOut = useCutOut()
const { putIn, goBack } = useCuttingErrand()
const going = ref(false)

async function go(there: () => Promise<void>): Promise<void> {
  going.value = true
  await there()
  going.value = false
}
</script>

<template>
  <div class="cutting" role="status">
    <span>What you cut out here goes into the other finish.</span>
    <button type="button" class="action key" :disabled="!cutOut.isOn || going" @click="go(putIn)">Put it in</button>
    <button type="button" class="action" :disabled="going" @click="go(goBack)">Go back without it</button>
  </div>
</template>

<style scoped>
.cutting {
  position: absolute;
  inset: 0 0 auto;
  z-index: 5;
  display: flex;
  gap: 10px;
  align-items: center;
  padding: 8px 14px;
  background: var(--paper);
  color: var(--ink);
}

.cutting span {
  flex: 1;
  font-weight: 600;
}
</style>
