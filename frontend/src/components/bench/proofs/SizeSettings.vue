<script setup lang="ts">
import { ref, watch } from 'vue'

import type { SizePlan } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import { useSizes } from '../../../stores/sizes'
import AppDialog from '../../shared/AppDialog.vue'
import NumberField from '../../shared/NumberField.vue'

const open = defineModel<boolean>({ required: true })

const bench = useBench()
const sizes = useSizes()
const name = ref('')
const seenWidth = ref(1)

watch(open, (now) => {
  if (!now) return
  name.value = bench.size!.name
  seenWidth.value = bench.size!.seen_width
})

async function done(): Promise<void> {
  open.value = false
  const wished = name.value.trim()
  if (wished && wished !== bench.size!.name) await bench.edit({ kind: 'rename_size', name: wished })
  const seen_width = Math.round(seenWidth.value)
  if (seen_width !== bench.size!.seen_width) await bench.edit({ kind: 'set_seen_width', seen_width })
}

/** The size as it is now, without its window, among one's own sizes. */
async function keep(): Promise<void> {
  await done()
  const { pixels, shape, seen_width, in_column, covered, overrides } = bench.size!
  const plan: SizePlan = { name: bench.size!.name, pixels, shape, seen_width, in_column, covered, overrides }
  await sizes.save(plan)
}
</script>

<template>
  <AppDialog v-model="open" title="This size" :width="380">
    <label>
      <span class="field-label">Name</span>
      <input v-model="name" class="text-field" maxlength="120" @keydown.enter="done" />
    </label>
    <p class="field-label">
      {{ bench.size!.in_column ? 'Width of the column it is shown in' : 'Width at which people usually see it' }}
    </p>
    <NumberField
      label="Displayed width, px"
      unit="px"
      :value="seenWidth"
      :min="1"
      :max="16000"
      :digits="0"
      @change="(value) => (seenWidth = value)"
    />
    <template #footer>
      <button type="button" class="action" @click="keep">Save for reuse</button>
      <button type="button" class="action key" @click="done">Done</button>
    </template>
  </AppDialog>
</template>

<style scoped>
.action {
  margin-left: 8px;
}
</style>
