<script setup lang="ts">
// The file of the size in hand: what it weighs, and saving it.

import { computed, nextTick, ref, watch } from 'vue'

import { post } from '../../../api/client'
import { pictureOf } from '../../../api/drafts'
import type { Exported, WeighedFile } from '../../../api/types'
import { downloadFrom } from '../../../composables/downloads'
import { formatNumber, formatWeight } from '../../../composables/numbers'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import ExportsDialog from './ExportsDialog.vue'
import SeveralDialog from './SeveralDialog.vue'
import { isLosslessExport } from './formats'

const props = defineProps<{
  weighed: WeighedFile | null
  /** The share that is done while the file takes long to make. */
  progress: number | null
  /** The file that was asked for last, once it is made; null if it could not be. */
  settled: () => Promise<WeighedFile | null>
}>()

const bench = useBench()
const notices = useNotices()
const saving = ref(false)
const lastSaved = ref<Exported | null>(null)
const showExports = ref(false)
const showSeveral = ref(false)
const severalSizes = computed(() => bench.document!.sizes.length > 1)
const settings = computed(() => bench.here!.export)
const isLossless = computed(() => isLosslessExport(settings.value))
const facts = computed(() => {
  const file = props.weighed
  if (!file) return ''
  const colours = settings.value.colours ?? (settings.value.format === 'gif' ? 256 : null)
  const isFew = colours && ['png', 'gif'].includes(settings.value.format!)
  const lossless = isFew ? `${colours} colours` : 'lossless'
  const quality = isLossless.value ? lossless : `quality ${file.quality}`
  return `${file.width} × ${file.height} px, sRGB, ${quality}`
})

watch(
  () => [bench.saved?.revision, bench.sizeId],
  () => (lastSaved.value = null),
)

/** Save the file of what is on the screen, once all edits are in and it is weighed. */
async function save(): Promise<void> {
  saving.value = true
  try {
    if (!(await bench.settle()) || !bench.saved) return
    await nextTick() // so that what was just saved is asked for
    const file = await props.settled()
    if (!file) return
    const wanted = { revision: bench.saved.revision, size_id: bench.sizeId, sha256: file.sha256 }
    const exported = await post<Exported>(`/finishes/${bench.saved.id}/exports`, wanted)
    download(exported)
    lastSaved.value = exported
  } catch (error) {
    notices.tell(error)
  } finally {
    saving.value = false
  }
}

function download(exported: Exported): void {
  downloadFrom(`/api/exports/${exported.id}/file`, exported.file_name)
}

/** The finish itself, with all that it needs. */
async function takeAlong(): Promise<void> {
  if (!(await bench.settle()) || !bench.saved) return
  downloadFrom(`/api/finishes/${bench.saved.id}/file`, 'finish.zip')
}

/** This size in layers, for an image editor. */
async function saveLayers(): Promise<void> {
  if (!(await bench.settle()) || !bench.saved) return
  const { id, revision } = bench.saved
  downloadFrom(`/api/finishes/${id}/layers?revision=${revision}&size_id=${bench.sizeId}`, 'layers.ora')
}

/** Clipboards take PNG, so the copy is lossless whatever the format of the file. */
async function copy(): Promise<void> {
  const body = { size_id: bench.sizeId, channel: 'copy', scale: 1, lossless: true }
  try {
    const png = pictureOf(bench.draft!, body).then((blob) => blob ?? new Blob())
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': png })])
    notices.say('The picture is on the clipboard.')
  } catch {
    notices.say('This browser did not allow copying; save the file instead.', true)
  }
}
</script>

<template>
  <div class="result">
    <div aria-live="polite">
      <template v-if="weighed">
        <b :class="{ heavy: !weighed.meets_cap }">{{ formatWeight(weighed.bytes) }}</b>
        <p>{{ facts }}</p>
      </template>
      <template v-else>
        <b>…</b>
        <p>
          Making the file
          <progress v-if="progress !== null" :value="progress" max="1"></progress>
        </p>
      </template>
    </div>
    <button type="button" class="action key" :disabled="saving" @click="save">
      Save this size
    </button>
  </div>
  <div v-if="weighed && !weighed.meets_cap" class="unmet" role="alert">
    <p>
      <span class="check-light look"></span>
      {{ isLossless ? 'It can’t be made lighter as it is' : 'Even at quality 40 it is heavier' }}:
      more than {{ formatNumber(settings.max_kb ?? 0) }} KB.
    </p>
    <button
      v-for="suggestion in weighed.suggestions"
      :key="suggestion.label"
      type="button"
      class="link strong"
      @click="bench.edit(suggestion.edit)"
    >
      {{ suggestion.label }}
    </button>
  </div>
  <p class="name" :title="weighed?.file_name">
    {{ lastSaved ? `Saved as ${lastSaved.file_name}` : weighed?.file_name }}
  </p>
  <div class="links">
    <button v-if="severalSizes" type="button" class="link strong" @click="showSeveral = true">
      Save several…
    </button>
    <button type="button" class="link" @click="copy">Copy</button>
    <button type="button" class="link" @click="showExports = true">Earlier exports</button>
    <button type="button" class="link" data-tip="OpenRaster: photo, subject, border and every piece as a layer, for an image editor" @click="saveLayers">
      Layers
    </button>
    <button type="button" class="link" data-tip="With its photos and fonts, for another Lucky Margin" @click="takeAlong">
      Finish as a file
    </button>
  </div>
  <ExportsDialog v-model="showExports" @download="download" />
  <SeveralDialog v-model="showSeveral" />
</template>

<style scoped>
.result {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  margin-top: 12px;
  padding-top: 10px;
  border-top: 1px dashed var(--rule);
}

/* Room for what is said of the file, so that nothing moves when it is made. */
.result > div {
  min-height: 48px;
}

.result b {
  font: 700 20px var(--heading);
}

.result b.heavy {
  color: var(--persimmon);
}

.result p,
.name {
  color: var(--ink-soft);
  font-size: 12px;
}

progress {
  width: 90px;
}

.unmet {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  margin-top: 8px;
}

.unmet p {
  width: 100%;
}

.unmet .check-light {
  margin-right: 4px;
}

.name {
  margin-top: 8px;
  min-height: 1.5em;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.links {
  display: flex;
  flex-wrap: wrap;
  gap: 0 14px;
}
</style>
