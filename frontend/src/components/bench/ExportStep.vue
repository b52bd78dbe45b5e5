<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'

import { picture, post } from '../../api/client'
import type { Edit, Exported, ExportChanges, WeighedFile } from '../../api/types'
import { downloadFrom } from '../../composables/downloads'
import { useLatest } from '../../composables/latest'
import { formatNumber, formatWeight } from '../../composables/numbers'
import { useBench } from '../../stores/bench'
import { useNotices } from '../../stores/notices'
import ChoiceChips, { type Choice } from '../shared/ChoiceChips.vue'
import NumberField from '../shared/NumberField.vue'
import SliderRow from '../shared/SliderRow.vue'
import OverrideNote from '../shared/OverrideNote.vue'
import ExportsDialog from './ExportsDialog.vue'
import SeveralDialog from './SeveralDialog.vue'

type Format = NonNullable<ExportChanges['format']>

const FORMATS: Choice<Format>[] = [
  { key: 'jpeg', label: 'JPEG', title: 'Opens everywhere; no transparency' },
  { key: 'png', label: 'PNG', title: 'Keeps every pixel and transparency; heavy' },
  { key: 'webp', label: 'WebP', title: 'Light, with transparency' },
  { key: 'avif', label: 'AVIF', title: 'Lightest; takes a moment to make' },
]
const FIRST_CAP_KB = 400

const bench = useBench()
const notices = useNotices()
const weighed = ref<WeighedFile | null>(null)
const saving = ref(false)
const lastSaved = ref<Exported | null>(null)
const showExports = ref(false)
const showDetails = ref(false)
const showSeveral = ref(false)
const severalSizes = computed(() => bench.document!.sizes.length > 1)

const settings = computed(() => bench.here!.export)
const isCapped = computed(() => (settings.value.max_kb ?? null) !== null)
const isLossless = computed(() => settings.value.format === 'png')
const facts = computed(() => {
  const file = weighed.value
  if (!file) return ''
  const quality = file.image_format === 'png' ? 'lossless' : `quality ${file.quality}`
  return `${file.width} × ${file.height} px, sRGB, ${quality}`
})

// What is weighed is always what is saved, so the file is made anew after every saved change.
const weighing = useLatest<{ revision: number; size_id: string }>(async (wanted) => {
  if (!bench.saved) return
  try {
    const path = `/finishes/${bench.saved.id}/weigh`
    const file = await post<WeighedFile>(path, wanted)
    if (wanted.revision === bench.saved?.revision && wanted.size_id === bench.sizeId) weighed.value = file
  } catch (error) {
    weighed.value = null
    notices.tell(error)
  }
})
watch(
  () => [bench.saved?.revision, bench.sizeId] as const,
  ([revision, size_id]) => {
    weighed.value = null
    lastSaved.value = null
    // A size that was just added is saved in a moment, with a revision of its own.
    const isSaved = bench.saved?.document.sizes.some(({ id }) => id === size_id)
    if (revision && isSaved) weighing.ask({ revision, size_id })
  },
  { immediate: true },
)

function change(changes: ExportChanges): Edit {
  return { kind: 'set_export', changes, only_this_size: bench.onlyThisSize }
}

function setDetail(detail: Record<string, string | boolean>): void {
  void bench.edit({ kind: 'set_file_details', ...detail })
}

/** Save the file of what is on the screen, once all edits are in and it is weighed. */
async function save(): Promise<void> {
  saving.value = true
  try {
    if (!(await bench.settle()) || !bench.saved) return
    await nextTick() // so that what was just saved is asked for
    await weighing.settled()
    const file = weighed.value
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

/** Clipboards take PNG, so the copy is lossless whatever the format of the file. */
async function copy(): Promise<void> {
  const body = {
    document: bench.document,
    size_id: bench.sizeId,
    channel: 'copy',
    scale: 1,
    lossless: true,
  }
  try {
    const png = picture('/bench/preview', body).then((blob) => blob ?? new Blob())
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': png })])
    notices.say('The picture is on the clipboard.')
  } catch {
    notices.say('This browser did not allow copying; save the file instead.', true)
  }
}
</script>

<template>
  <p class="field-label">Format</p>
  <ChoiceChips
    label="Format"
    :choices="FORMATS"
    :chosen="settings.format"
    @choose="(format) => bench.edit(change({ format }))"
  />
  <p class="field-label">
    Weight
    <span v-if="isCapped && weighed && !isLossless && weighed.meets_cap">quality {{ weighed.quality }} reaches it</span>
    <span v-else-if="isLossless && !isCapped">lossless</span>
  </p>
  <div class="weight">
    <ChoiceChips
      label="Weight"
      :choices="[
        { key: 'quality', label: 'by quality' },
        { key: 'cap', label: 'at most' },
      ]"
      :chosen="isCapped ? 'cap' : 'quality'"
      @choose="(key) => bench.edit(change({ max_kb: key === 'cap' ? (settings.max_kb ?? FIRST_CAP_KB) : null }))"
    />
    <NumberField
      v-if="isCapped"
      label="Most kilobytes"
      unit="KB"
      :value="settings.max_kb ?? FIRST_CAP_KB"
      :min="1"
      :max="1000000"
      @change="(max_kb) => bench.edit(change({ max_kb }))"
    />
  </div>
  <SliderRow
    v-if="!isCapped && !isLossless"
    label="Quality"
    :value="settings.quality"
    :min="1"
    :max="100"
    unit=""
    @move="(quality) => bench.drag(change({ quality }))"
    @change="(quality) => bench.slide(change({ quality: Math.round(quality) }))"
  />
  <label>
    <span class="field-label">Name <span>{name} {size} {width} {height}</span></span>
    <input
      class="text-field"
      :value="settings.name_pattern"
      maxlength="200"
      spellcheck="false"
      @change="setDetail({ name_pattern: ($event.target as HTMLInputElement).value || '{name}' })"
    />
  </label>
  <button type="button" class="link" :aria-expanded="showDetails" @click="showDetails = !showDetails">
    What the file says about itself
  </button>
  <template v-if="showDetails">
    <label>
      <span class="field-label">Author</span>
      <input
        class="text-field"
        placeholder="as in the original"
        maxlength="200"
        :value="settings.author"
        @change="setDetail({ author: ($event.target as HTMLInputElement).value })"
      />
    </label>
    <label>
      <span class="field-label">Copyright</span>
      <input
        class="text-field"
        placeholder="as in the original"
        maxlength="200"
        :value="settings.copyright"
        @change="setDetail({ copyright: ($event.target as HTMLInputElement).value })"
      />
    </label>
    <label class="tick">
      <input
        type="checkbox"
        :checked="settings.keep_camera_data"
        @change="setDetail({ keep_camera_data: ($event.target as HTMLInputElement).checked })"
      />
      Keep camera data
    </label>
    <label class="tick">
      <input
        type="checkbox"
        :checked="settings.keep_place"
        @change="setDetail({ keep_place: ($event.target as HTMLInputElement).checked })"
      />
      Keep the place where it was taken
    </label>
  </template>
  <div class="result">
    <div aria-live="polite">
      <template v-if="weighed">
        <b :class="{ heavy: !weighed.meets_cap }">{{ formatWeight(weighed.bytes) }}</b>
        <p>{{ facts }}</p>
      </template>
      <template v-else>
        <b>…</b>
        <p>making the file</p>
      </template>
    </div>
    <button type="button" class="action key" :disabled="saving" @click="save">
      Save this size
    </button>
  </div>
  <div v-if="weighed && !weighed.meets_cap" class="unmet" role="alert">
    <p>
      <span class="light look"></span>
      {{ isLossless ? 'PNG is lossless, so this is what it weighs' : 'Even at quality 40 this is what it weighs' }}:
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
  </div>
  <OverrideNote step="export" />
  <ExportsDialog v-model="showExports" @download="download" />
  <SeveralDialog v-model="showSeveral" />
</template>

<style scoped>
.weight {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 6px;
}

.result {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 8px;
  margin-top: 12px;
  padding-top: 10px;
  border-top: 1px dashed var(--rule);
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

.unmet {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  margin-top: 8px;
}

.unmet p {
  width: 100%;
}

.unmet .light {
  margin-right: 4px;
}

.name {
  margin-top: 8px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}

.links {
  display: flex;
  gap: 14px;
}
</style>
