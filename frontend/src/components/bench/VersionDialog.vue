<script setup lang="ts">
import { ref, watch } from 'vue'

import { post } from '../../api/client'
import { useBench } from '../../stores/bench'
import { useNotices } from '../../stores/notices'
import AppDialog from '../shared/AppDialog.vue'

const open = defineModel<boolean>({ required: true })
const bench = useBench()
const notices = useNotices()
const name = ref('')

watch(open, (now) => {
  if (now) name.value = ''
})

async function keep(): Promise<void> {
  const wished = name.value.trim()
  if (!wished || !(await bench.settle()) || !bench.saved) return
  try {
    await post(`/finishes/${bench.saved.id}/versions`, { name: wished })
    notices.say(`“${wished}” is kept. To find it, click the change count next to the name.`)
    open.value = false
  } catch (error) {
    notices.tell(error)
  }
}
</script>

<template>
  <AppDialog v-model="open" title="Keep a version" :width="400">
    <form @submit.prevent="keep">
      <label>
        <span class="field-label">Name of this version</span>
        <input v-model="name" class="text-field" maxlength="120" placeholder="Before the border" />
      </label>
      <div class="foot">
        <button type="submit" class="action key" :disabled="!name.trim()">Keep</button>
      </div>
    </form>
  </AppDialog>
</template>

<style scoped>
.foot {
  margin-top: 14px;
  text-align: right;
}
</style>
