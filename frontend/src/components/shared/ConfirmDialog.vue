<script setup lang="ts">
import AppDialog from './AppDialog.vue'

defineProps<{ title: string; text: string; action: string }>()
const open = defineModel<boolean>({ required: true })
const emit = defineEmits<{ confirm: [] }>()

function confirm(): void {
  emit('confirm')
  open.value = false
}
</script>

<template>
  <AppDialog v-model="open" :title="title" :width="420">
    <p>{{ text }}</p>
    <template #footer>
      <button type="button" class="action" @click="open = false">Cancel</button>
      <button type="button" class="action key" @click="confirm">{{ action }}</button>
    </template>
  </AppDialog>
</template>

<style scoped>
.action {
  margin-left: 8px;
}
</style>
