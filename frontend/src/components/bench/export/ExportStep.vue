<script setup lang="ts">
import { computed } from 'vue'

import type { Edit, ExportChanges } from '../../../api/types'
import { useWeighing } from '../../../composables/weighing'
import { useBench } from '../../../stores/bench'
import ChoiceChips, { type Choice } from '../../shared/ChoiceChips.vue'
import NumberField from '../../shared/NumberField.vue'
import OverrideNote from '../../shared/OverrideNote.vue'
import SliderRow from '../../shared/SliderRow.vue'
import AltText from './AltText.vue'
import ExportFile from './ExportFile.vue'
import FileDetails from './FileDetails.vue'
import FormatOptions from './FormatOptions.vue'
import RevealSection from './RevealSection.vue'
import { isLosslessExport } from './formats'

type Format = NonNullable<ExportChanges['format']>

const FORMATS: Choice<Format>[] = [
  { key: 'jpeg', label: 'JPEG' },
  { key: 'png', label: 'PNG' },
  { key: 'webp', label: 'WebP' },
  { key: 'avif', label: 'AVIF' },
  { key: 'tiff', label: 'TIFF' },
  { key: 'gif', label: 'GIF' },
  { key: 'bmp', label: 'BMP' },
  { key: 'pdf', label: 'PDF' },
]
const FIRST_CAP_KB = 400

const bench = useBench()
const { weighed, progress, settled } = useWeighing()
const settings = computed(() => bench.here!.export)
/** Whether there is anything to reveal. */
const isLifted = computed(() => bench.here!.treatments.on && bench.here!.lifts.lifted.some(({ on }) => on))
const isCapped = computed(() => (settings.value.max_kb ?? null) !== null)
const isLossless = computed(() => isLosslessExport(settings.value))

function change(changes: ExportChanges): Edit {
  return { kind: 'set_export', changes, only_this_size: bench.onlyThisSize }
}

function setPattern(name_pattern: string): void {
  void bench.edit({ kind: 'set_file_details', name_pattern: name_pattern || '{name}' })
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
  <FormatOptions />
  <p class="field-label">
    Weight
    <span v-if="isCapped && weighed && !isLossless && weighed.meets_cap">quality {{ weighed.quality }} is light enough</span>
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
      label="At most, kilobytes"
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
      @change="setPattern(($event.target as HTMLInputElement).value)"
    />
  </label>
  <AltText />
  <FileDetails />
  <RevealSection v-if="isLifted" />
  <ExportFile :weighed="weighed" :progress="progress" :settled="settled" />
  <OverrideNote :steps="['export']" />
</template>

<style scoped>
.weight {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 6px;
}
</style>
