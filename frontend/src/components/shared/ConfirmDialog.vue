<script setup lang="ts">
import { ElDialog } from 'element-plus'

defineProps<{ title: string; text: string; action: string }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ confirm: [] }>()

function confirm(): void {
  open.value = false
  emit('confirm')
}
</script>

<template>
  <ElDialog v-model="open" :title="title" width="420">
    <p>{{ text }}</p>
    <template #footer>
      <button type="button" class="action" @click="open = false">Keep it</button>
      <button type="button" class="action key" @click="confirm">{{ action }}</button>
    </template>
  </ElDialog>
</template>

<style scoped>
.action {
  margin-left: 8px;
}
</style>
