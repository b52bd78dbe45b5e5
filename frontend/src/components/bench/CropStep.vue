<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'

import { get } from '../../api/client'
import type { Edit, LibrarySize, Photo, WindowField } from '../../api/types'
import { useBench } from '../../stores/bench'
import { useNotices } from '../../stores/notices'
import ChoiceChips, { type Choice } from '../shared/ChoiceChips.vue'
import ColourField from '../shared/ColourField.vue'
import NumberField from '../shared/NumberField.vue'
import SliderRow from '../shared/SliderRow.vue'
import { GROUND_COLOURS } from './colours'

const props = defineProps<{ photo: Photo | null }>()

const RATIOS = ['1:1', '4:5', '9:16', '16:9', '3:1']
const SAME = 0.002

const bench = useBench()
const notices = useNotices()
const library = ref<LibrarySize[]>([])

onMounted(async () => {
  try {
    library.value = (await get<{ sizes: LibrarySize[] }>('/bench/sizes')).sizes
  } catch (error) {
    notices.tell(error)
  }
})

const size = computed(() => bench.size!)
const layout = computed(() => bench.layout!)
const short = computed(() => Math.min(layout.value.width, layout.value.height))
const outside = computed(() => bench.document!.outside)
const showsOutside = computed(() => size.value.shape.radius > 0 || props.photo?.has_alpha)

const sizeChoices = computed<Choice<string>[]>(() => [
  { key: 'as_cropped', label: 'as cropped', title: 'One pixel for each photo pixel' },
  ...library.value.map(({ key, name, purpose, pixels }) => ({
    key,
    label: name,
    title: `${pixels.width} × ${pixels.height} px: ${purpose}`,
    ratio: pixels.width / pixels.height,
  })),
])
const chosenSize = computed(() => {
  const pixels = size.value.pixels
  if (pixels.kind !== 'fixed') return pixels.kind
  const found = library.value.find(
    (one) => one.pixels.width === pixels.width && one.pixels.height === pixels.height,
  )
  return found?.key ?? null
})

const ratioChoices = computed<Choice<string>[]>(() => [
  { key: 'free', label: 'free', title: 'Each edge moves alone' },
  { key: 'original', label: 'original', title: "The photo's own ratio", ratio: photoRatio.value },
  ...RATIOS.map((label) => ({ key: label, label, ratio: ratioOf(label) })),
])
const photoRatio = computed(() => layout.value.photo_width / layout.value.photo_height)
const chosenRatio = computed(() => {
  const pixels = size.value.pixels
  const held =
    pixels.kind === 'fixed'
      ? pixels.width / pixels.height
      : pixels.ratio && pixels.ratio.width / pixels.ratio.height
  if (!held) return 'free'
  const same = (ratio: number) => Math.abs(held / ratio - 1) < SAME
  return RATIOS.find((label) => same(ratioOf(label))) ?? (same(photoRatio.value) ? 'original' : null)
})

const windowFields: { field: WindowField; label: string; value: () => number }[] = [
  { field: 'from_left', label: 'from left', value: () => layout.value.window.left },
  { field: 'from_top', label: 'from top', value: () => layout.value.window.top },
  { field: 'width', label: 'width', value: () => layout.value.window.width },
  { field: 'height', label: 'height', value: () => layout.value.window.height },
]

function ratioOf(label: string): number {
  const [width, height] = label.split(':').map(Number)
  return width! / height!
}

function sizeEdit(key: string): Edit {
  const found = library.value.find((one) => one.key === key)
  if (found) return { kind: 'set_pixels', pixels: found.pixels, name: found.name }
  const pixels = { kind: 'as_cropped' as const, ratio: null }
  return { kind: 'set_pixels', pixels, name: 'As cropped' }
}

function typeSide(side: 'width' | 'height', value: number): void {
  void bench.edit(({ document, layout }) => {
    const whole = Math.round(value)
    const pixels = document.sizes.find((one) => one.id === layout.size_id)!.pixels
    if (pixels.kind === 'one_side') {
      return { kind: 'set_pixels', pixels: { ...pixels, side, length: whole } }
    }
    const { width, height } = layout
    const fixed = { kind: 'fixed' as const, width, height, [side]: whole }
    return { kind: 'set_pixels', pixels: fixed, name: 'Own size' }
  })
}

function ratioEdit(key: string): Edit {
  if (key === 'free') return { kind: 'choose_ratio', ratio: null }
  if (key === 'original') return { kind: 'choose_ratio', ratio: 'original' }
  const [width, height] = key.split(':').map(Number)
  return { kind: 'choose_ratio', ratio: { width: width!, height: height! } }
}

function tryOut(edit: Edit | null): void {
  bench.tryOut = edit
}

function swap(): void {
  const held = layout.value.held_ratio
  if (!held) return
  const pixels = size.value.pixels
  if (pixels.kind === 'fixed') {
    const swapped = { kind: 'fixed' as const, width: pixels.height, height: pixels.width }
    void bench.edit({ kind: 'set_pixels', pixels: swapped, name: 'Own size' })
  } else if (pixels.ratio) {
    const ratio = { width: pixels.ratio.height, height: pixels.ratio.width }
    void bench.edit({ kind: 'choose_ratio', ratio })
  }
}

const corners = (percent: number) =>
  ({ kind: 'set_shape', shape: { kind: 'rectangle', radius: percent / 100 } }) as const

function setOutside(colour: string | null): void {
  const ground = colour ? { kind: 'colour' as const, colour } : { kind: 'transparent' as const }
  void bench.edit({ kind: 'set_ground', place: 'outside', ground })
}
</script>

<template>
  <p class="field-label">Size</p>
  <ChoiceChips
    label="Size"
    :choices="sizeChoices"
    :chosen="chosenSize"
    @choose="(key) => bench.edit(sizeEdit(key))"
    @hover="(key) => tryOut(key ? sizeEdit(key) : null)"
  />
  <div class="sides">
    <NumberField
      stacked
      label="width, px"
      :value="layout.width"
      :min="1"
      :max="16000"
      :digits="0"
      @change="(value) => typeSide('width', value)"
    />
    <span aria-hidden="true">×</span>
    <NumberField
      stacked
      label="height, px"
      :value="layout.height"
      :min="1"
      :max="16000"
      :digits="0"
      @change="(value) => typeSide('height', value)"
    />
  </div>
  <p class="field-label">
    Ratio
    <button type="button" class="link" :disabled="!layout.held_ratio" @click="swap">swap sides</button>
  </p>
  <ChoiceChips
    label="Ratio"
    :choices="ratioChoices"
    :chosen="chosenRatio"
    @choose="(key) => bench.edit(ratioEdit(key))"
    @hover="(key) => tryOut(key ? ratioEdit(key) : null)"
  />
  <p class="field-label">Window, in photo pixels</p>
  <div class="window">
    <NumberField
      v-for="{ field, label, value } in windowFields"
      :key="field"
      stacked
      :label="label"
      :value="value()"
      :min="0"
      :percent="(field.endsWith('left') || field === 'width' ? layout.photo_width : layout.photo_height) / 100"
      @change="(typed) => bench.edit({ kind: 'type_window', field, value: typed })"
    />
  </div>
  <SliderRow
    label="Corners"
    :value="size.shape.radius * 100"
    :max="50"
    :step="0.5"
    :digits="1"
    :percent="1"
    :title="`${Math.round(size.shape.radius * short)} px`"
    @move="(percent) => bench.drag(corners(percent))"
    @change="(percent) => bench.slide(corners(percent))"
  />
  <template v-if="showsOutside">
    <p class="field-label">
      Outside the shape
      <button
        type="button"
        class="link"
        :disabled="outside.kind === 'transparent'"
        @click="setOutside(null)"
      >
        {{ outside.kind === 'transparent' ? 'transparent' : 'make transparent' }}
      </button>
    </p>
    <ColourField
      label="Outside colour"
      :value="outside.kind === 'colour' ? outside.colour : ''"
      :swatches="GROUND_COLOURS"
      @change="setOutside"
    />
  </template>
</template>

<style scoped>
.sides {
  display: grid;
  grid-template-columns: 1fr auto 1fr;
  gap: 6px;
  align-items: center;
  margin-top: 6px;
}

.window {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 5px;
}
</style>
