<script setup lang="ts">
// The house style that the finish is in, in the docket's head.

import { ref } from 'vue'

import { explain, vTip } from '../../../composables/explanations'
import { useBench } from '../../../stores/bench'
import StyleDialog from './StyleDialog.vue'

const bench = useBench()
const open = ref(false)
</script>

<template>
  <button v-tip="explain('House style')" type="button" class="link" @click="open = true">
    House style: <b>{{ bench.document?.style?.name ?? 'none' }}</b>
  </button>
  <StyleDialog v-model="open" />
</template>

<style scoped>
.link {
  display: block;
  max-width: 150px;
  overflow: hidden;
  font-size: 12px;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
