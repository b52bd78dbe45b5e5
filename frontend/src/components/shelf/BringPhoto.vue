<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'

import { useBringing } from '../../composables/bringing'
import type { SizePlan } from '../../api/types'
import { useNotices } from '../../stores/notices'
import { useShelf } from '../../stores/shelf'
import SizeDialog from '../bench/SizeDialog.vue'
import StyleChoice from './StyleChoice.vue'

const shelf = useShelf()
const { bring } = useBringing()
const notices = useNotices()
const router = useRouter()
const picker = ref<HTMLInputElement>()
const showSizes = ref(false)

const ACCEPTED = 'image/*,.heic,.heif,.avif,.tif,.tiff,.finish.zip,.backup.zip'

function picked(): void {
  const files = [...(picker.value?.files ?? [])]
  if (picker.value) picker.value.value = ''
  void bring(files)
}

async function startBlank(plan: SizePlan): Promise<void> {
  try {
    await router.push({ name: 'bench', params: { id: await shelf.startBlank(plan) } })
  } catch (error) {
    notices.tell(error)
  }
}
</script>

<template>
  <aside class="side ticket-edge">
    <h1>Add a photo</h1>
    <div class="drop">
      <b>Drop photos anywhere</b>
      <p>or paste one with Ctrl V</p>
      <button type="button" class="action key" @click="picker?.click()">Choose from this computer…</button>
      <input
        ref="picker"
        type="file"
        multiple
        hidden
        :accept="ACCEPTED"
        aria-label="Photos to add"
        @change="picked"
      />
    </div>
    <StyleChoice />
    <p class="blank">
      No photo? <button type="button" class="link" @click="showSizes = true">Start from a plain ground…</button>
    </p>
    <SizeDialog v-model="showSizes" title="A picture without a photo" without-photo @choose="startBlank" />
    <ul>
      <li v-for="refusal in shelf.refusals" :key="refusal" role="status">
        <span class="check-light look"></span>
        <span>{{ refusal }}</span>
      </li>
      <li>
        <span class="check-light"></span>
        <span>
          JPEG, PNG, WebP, AVIF, HEIC, TIFF, GIF, BMP, SVG. The original is never changed, and every step
          can be undone.
        </span>
      </li>
      <li><span class="check-light"></span><span>Add several at once, and each gets a finish.</span></li>
    </ul>
  </aside>
</template>

<style scoped>
.side {
  --behind-ticket: var(--shelf);

  position: relative;
  padding: 18px;
  background: var(--paper);
  box-shadow: 2px 0 10px rgb(30 42 47 / 12%);
}

h1 {
  margin-bottom: 14px;
  padding-bottom: 8px;
  border-bottom: 2px solid var(--ink);
  font-size: 21px;
  font-weight: 700;
}

.drop {
  padding: 26px 16px;
  border: 2px dashed var(--edge);
  border-radius: 6px;
  background: var(--card);
  text-align: center;
}

.drop b {
  font: 600 17px var(--heading);
}

.drop p {
  margin: 4px 0 12px;
  color: var(--ink-soft);
}

.blank {
  margin-top: 12px;
  text-align: center;
}

li {
  display: grid;
  grid-template-columns: 24px 1fr;
  gap: 8px;
  margin-top: 14px;
  color: var(--ink-soft);
  overflow-wrap: anywhere;
}

li .check-light {
  margin: 5px 0 0 6px;
}
</style>
