<script setup lang="ts">
// One of the blend modes, by what they do to the picture.

import type { BlendMode } from '../../api/types'
import { BLEND_GROUPS, BLEND_NAMES } from './blends'

defineProps<{ blend: BlendMode }>()
const emit = defineEmits<{ choose: [blend: BlendMode] }>()

const chosen = (event: Event) => (event.target as HTMLSelectElement).value as BlendMode
</script>

<template>
  <select class="text-field" aria-label="Blend" :value="blend" @change="(event) => emit('choose', chosen(event))">
    <optgroup v-for="{ name, modes } in BLEND_GROUPS" :key="name" :label="name">
      <option v-for="mode in modes" :key="mode" :value="mode">{{ BLEND_NAMES[mode] }}</option>
    </optgroup>
  </select>
</template>
