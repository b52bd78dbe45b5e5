<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

import { useNotices } from '../../stores/notices'
import { useShelf } from '../../stores/shelf'

const notices = useNotices()
const shelf = useShelf()
const route = useRoute()

/** Photos on their way; the shelf shows them in a place of its own. */
const arriving = computed(() =>
  route.name === 'bench' ? shelf.arrivals.filter((arrival) => !arrival.refused) : [],
)
</script>

<template>
  <div v-if="notices.unreachable" class="banner" role="alert">
    Lucky Margin does not answer. Your work is kept here and saved as soon as it is back.
  </div>
  <div v-else-if="notices.diskFull" class="banner" role="alert">
    The disk is full. Your work is kept here and saved as soon as there is room again.
  </div>
  <ul class="notices" aria-live="polite">
    <li v-for="arrival in arriving" :key="arrival.name">
      <span class="light"></span>
      <span>Adding {{ arrival.name }}</span>
      <progress :value="arrival.progress" :aria-label="`Adding ${arrival.name}`"></progress>
    </li>
    <li v-for="notice in notices.notices" :key="notice.id">
      <span class="light" :class="{ look: notice.look }"></span>
      <span>{{ notice.text }}</span>
      <button type="button" aria-label="Dismiss" @click="notices.dismiss(notice.id)">×</button>
    </li>
  </ul>
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

.notices {
  position: fixed;
  bottom: 50px;
  left: 50%;
  z-index: 3050;
  width: max-content;
  max-width: min(560px, 90vw);
  transform: translateX(-50%);
}

li {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-top: 6px;
  padding: 8px 6px 8px 14px;
  border: 1px solid var(--rule);
  border-radius: 6px;
  background: var(--card);
  box-shadow: 0 4px 14px rgb(30 42 47 / 30%);
}

progress {
  width: 120px;
  margin-right: 8px;
}

li button {
  width: 26px;
  height: 26px;
  border: 0;
  background: none;
  font-size: 17px;
}
</style>
