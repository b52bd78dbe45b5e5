<script setup lang="ts">
// That the service is gone, or its disk full: what happens to the work meanwhile.

import { useNotices } from '../../stores/notices'

const notices = useNotices()
</script>

<template>
  <div v-if="notices.unreachable" class="banner" role="alert">
    Lucky Margin is not answering. Your work is kept here and will be saved when it is back.
  </div>
  <div v-else-if="notices.diskFull" class="banner" role="alert">
    The disk is full. Your work is kept here and will be saved when there is room again.
  </div>
</template>

<style scoped>
.banner {
  position: fixed;
  inset: 0 0 auto;
  z-index: 3100;
  padding: 12px;
  background: var(--persimmon);
  color: #ffffff;
  font-weight: 600;
  text-align: center;
}
</style>
