<script setup lang="ts">
import { computed } from 'vue'

import { useBench } from '../../stores/bench'
import ProofItem from './ProofItem.vue'

const bench = useBench()
const sizes = computed(() => bench.document!.sizes)
</script>

<template>
  <section>
    <h2>Proofs</h2>
    <ul>
      <ProofItem v-for="size in sizes" :key="size.id" :size="size" />
    </ul>
  </section>
</template>

<style scoped>
h2 {
  margin-bottom: 9px;
  font-size: 16px;
  font-weight: 700;
}
</style>
