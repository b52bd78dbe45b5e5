<script setup lang="ts">
import { computed } from 'vue'

import { useBench } from '../../stores/bench'

const props = defineProps<{ step: 'turn' | 'tone' | 'border' | 'pieces' | 'watermark' | 'export' }>()

const bench = useBench()
const hasOthers = computed(() => bench.document!.sizes.length > 1)
const differs = computed(() => Object.keys(bench.size!.own[props.step] ?? {}).length > 0)
</script>

<template>
  <p v-if="hasOthers" class="own">
    <label class="tick">
      <input v-model="bench.onlyThisSize" type="checkbox" />
      Change only this size
    </label>
    <button v-if="differs" type="button" class="link" @click="bench.edit({ kind: 'follow', step })">
      follow the others
    </button>
  </p>
</template>

<style scoped>
.own {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
</style>
