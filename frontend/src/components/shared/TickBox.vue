<script setup lang="ts">
import { useExplained, vTip } from '../../composables/explanations'

const props = defineProps<{ label: string; disabled?: boolean }>()
const checked = defineModel<boolean>('checked', { required: true })

const tip = useExplained(() => props.label)
</script>

<template>
  <label v-tip="tip" class="tick">
    <input v-model="checked" type="checkbox" :disabled="disabled" />
    {{ label }}
  </label>
</template>
