<script setup lang="ts">
import { computed } from 'vue'

import { useBench } from '../../../stores/bench'
import { useSpots } from '../../../stores/spots'
import BrushSize from '../../shared/BrushSize.vue'
import OverrideNote from '../../shared/OverrideNote.vue'

const bench = useBench()
const spots = useSpots()
const filled = computed(() => bench.document!.spots.filled)

const remove = (number: number | null) => void bench.edit({ kind: 'remove_spot', number })
</script>

<template>
  <p class="hint">Click a speck of dust, or draw over a wire or a sticker. It is filled in from what is around it.</p>
  <BrushSize :brush="spots" />
  <p v-if="filled.length" class="links">
    <button type="button" class="link" :aria-pressed="spots.shows" @click="spots.shows = !spots.shows">
      {{ spots.shows ? 'Hide spots' : `Show spots (${filled.length})` }}
    </button>
    <button type="button" class="link" @click="remove(filled.length - 1)">Remove the last</button>
    <button type="button" class="link" @click="remove(null)">Remove all</button>
  </p>
  <p v-if="spots.shows" class="hint">Click a spot on the picture to remove it.</p>
  <OverrideNote :steps="['spots']" />
</template>

<style scoped>
.hint {
  margin-top: 6px;
  color: var(--ink-soft);
  font-size: 12px;
}

.links {
  display: flex;
  gap: 12px;
  margin-top: 7px;
}
</style>
