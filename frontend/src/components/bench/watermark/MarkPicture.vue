<script setup lang="ts">
// A mark's design as it looks now, on light or on dark.

import type { MarkDesign, MarkShade } from '../../../api/types'
import { useMarkPicture } from '../../../composables/markPictures'

const props = defineProps<{ design: MarkDesign; shade: MarkShade; alt: string }>()
const url = useMarkPicture(() => props.design, props.shade)
</script>

<template>
  <span class="mark-picture" :class="{ night: shade === 'light' }"><img v-if="url" :src="url" :alt="alt" /></span>
</template>

<style scoped>
.mark-picture {
  display: flex;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  border-radius: 3px;
  background: #ffffff;
}

.night {
  background: #3b4145;
}

img {
  flex: 1;
  min-width: 0;
  height: 100%;
  object-fit: contain;
}
</style>
