<script setup lang="ts">
import { computed, ref } from 'vue'

import { get } from '../../../api/client'
import type { Edit, Photo, PlainBackground, Watermark, WatermarkChanges } from '../../../api/types'
import { lookingAt } from '../../../composables/lookingAt'
import { useTyping } from '../../../composables/typing'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import ChoiceChips from '../../shared/ChoiceChips.vue'
import OverrideNote from '../../shared/OverrideNote.vue'
import SliderRow from '../../shared/SliderRow.vue'
import PicturePicker from '../pieces/PicturePicker.vue'
import FamilySelect from '../../shared/FamilySelect.vue'
import MarkShelf from './MarkShelf.vue'
import { vRadios } from '../../../composables/radios'
import TickBox from '../../shared/TickBox.vue'

type Kind = 'words' | 'kept' | 'logo'

const PLACES: { key: Watermark['place']; label: string }[] = [
  { key: 'spot', label: 'one spot' },
  { key: 'across', label: 'across' },
  { key: 'repeated', label: 'repeated' },
]
const SHADES: { key: Watermark['shade']; label: string }[] = [
  { key: 'auto', label: 'automatic' },
  { key: 'light', label: 'light' },
  { key: 'dark', label: 'dark' },
]
const SPOTS = [0, 0.5, 1]
const ACROSS = ['left', 'centre', 'right']
const DOWN = ['top', 'middle', 'bottom']

const KNOCK_OUT = { reach: 0.08, enclosed: true }

const bench = useBench()
const notices = useNotices()
const mark = computed(() => bench.here!.watermark)

const KINDS: { key: Kind; label: string }[] = [
  { key: 'words', label: 'words' },
  { key: 'kept', label: 'a saved mark' },
  { key: 'logo', label: 'a logo' },
]
const set = computed<Kind>(() => (mark.value.logo ? 'logo' : mark.value.mark ? 'kept' : 'words'))
/** What is looked at, before anything of it is set. */
const wished = ref<Kind | null>(null)
const kind = computed(() => wished.value ?? set.value)

/** Take a picture as the mark, without the plain colour that it may lie on. */
async function takeLogo({ sha256, width, height }: Photo): Promise<void> {
  const colour = await backgroundOf(sha256)
  const knock_out = colour ? { ...KNOCK_OUT, colour } : null
  void bench.edit(change({ logo: { sha256, ratio: width / height, knock_out }, mark: null }))
}

async function toggleKnockOut(): Promise<void> {
  const logo = mark.value.logo!
  const colour = logo.knock_out ? null : await backgroundOf(logo.sha256)
  if (!logo.knock_out && !colour) notices.say('This logo has no plain background.')
  void bench.edit(change({ logo: { ...logo, knock_out: colour ? { ...KNOCK_OUT, colour } : null } }))
}

async function backgroundOf(sha256: string): Promise<string | null> {
  try {
    return (await get<PlainBackground>(`/bench/background/${sha256}`)).colour
  } catch (error) {
    notices.tell(error)
    return null
  }
}

/** Changing anything of a watermark that is switched off switches it on. */
function change(changes: Partial<WatermarkChanges>): Edit {
  const given = { ...changes, on: true } as WatermarkChanges
  return { kind: 'set_watermark', changes: given, only_this_size: bench.onlyThisSize }
}

const typing = useTyping((text) => change({ text, mark: null, logo: null }))
const move = (changes: Partial<WatermarkChanges>) => bench.drag(change(changes))
const slide = (changes: Partial<WatermarkChanges>) => void bench.slide(change(changes))
const tryOut = (changes: Partial<WatermarkChanges> | null) => (bench.tryOut = changes && change(changes))
</script>

<template>
  <ChoiceChips label="Watermark" :choices="KINDS" :chosen="kind" @choose="(key) => (wished = key)" />
  <template v-if="kind === 'kept'">
    <MarkShelf
      :used="mark.mark ?? null"
      @take="(one) => bench.edit(change({ mark: one, logo: null }))"
      @hover="(one) => tryOut(one ? { mark: one, logo: null } : null)"
    />
  </template>
  <template v-else-if="kind === 'logo'">
    <PicturePicker @choose="takeLogo" />
    <p v-if="mark.logo" class="links">
      <TickBox label="Make its plain background transparent" :checked="!!mark.logo.knock_out" @update:checked="toggleKnockOut" />
      <button type="button" class="link" @click="bench.edit(change({ logo: null }))">Remove logo</button>
    </p>
  </template>
  <template v-else>
    <label>
      <span class="field-label">Words</span>
      <input
        class="text-field"
        maxlength="200"
        placeholder="Pebblewick Pottery"
        :value="mark.text"
        @input="typing.type(($event.target as HTMLInputElement).value)"
        @blur="typing.leave"
      />
    </label>
    <FamilySelect
      :family="mark.family"
      :words="mark.text"
      :weight="mark.weight"
      @update:family="(family) => bench.edit(change({ family }))"
      @update:weight="(weight) => bench.edit(change({ weight }))"
    />
  </template>
  <p class="field-label">Placement</p>
  <ChoiceChips
    label="Placement"
    :choices="PLACES"
    :chosen="mark.place"
    @choose="(place) => bench.edit(change({ place }))"
    @hover="(place) => tryOut(place && { place })"
  />
  <p v-if="mark.place === 'spot'" class="hint">Drag it on the picture, or:</p>
  <div v-if="mark.place === 'spot'" v-radios class="spots" role="radiogroup" aria-label="Spot">
    <template v-for="(y, row) in SPOTS" :key="y">
      <button
        v-for="(x, column) in SPOTS"
        :key="x"
        type="button"
        role="radio"
        :class="{ on: mark.spot.x === x && mark.spot.y === y }"
        :aria-label="`${DOWN[row]} ${ACROSS[column]}`"
        :aria-checked="mark.spot.x === x && mark.spot.y === y"
        @click="bench.edit(change({ spot: { kind: 'margin', x, y } }))"
        v-on="lookingAt((on) => tryOut(on ? { spot: { kind: 'margin', x, y } } : null))"
      ></button>
    </template>
  </div>
  <SliderRow
    v-if="mark.place !== 'across'"
    label="Size"
    :digits="1"
    :step="0.1"
    :value="100 * mark.size"
    :min="1"
    :max="20"
    @move="(value) => move({ size: value / 100 })"
    @change="(value) => slide({ size: value / 100 })"
  />
  <SliderRow
    label="Opacity"
    :value="100 * mark.opacity"
    :max="100"
    @move="(value) => move({ opacity: value / 100 })"
    @change="(value) => slide({ opacity: value / 100 })"
  />
  <template v-if="mark.place !== 'spot'">
    <SliderRow
      label="Angle"
      unit="°"
      :value="mark.angle"
      :min="-90"
      :max="90"
      @reset="bench.edit(change({ angle: 0 }))"
      @move="(angle) => move({ angle })"
      @change="(angle) => slide({ angle })"
    />
  </template>
  <template v-if="mark.place === 'repeated'">
    <SliderRow
      label="Spacing"
      unit=""
      :digits="1"
      :step="0.1"
      :value="mark.gap"
      :max="12"
      @move="(gap) => move({ gap })"
      @change="(gap) => slide({ gap })"
    />
    <TickBox label="Stagger rows" :checked="mark.stagger" @update:checked="bench.edit(change({ stagger: !mark.stagger }))" />
    <TickBox label="Only whole ones, none cut off at the edge" :checked="mark.whole" @update:checked="bench.edit(change({ whole: !mark.whole }))" />
  </template>
  <p v-if="!mark.logo" class="field-label">Shade</p>
  <ChoiceChips
    v-if="!mark.logo"
    label="Shade"
    :choices="SHADES"
    :chosen="mark.shade"
    @choose="(shade) => bench.edit(change({ shade }))"
    @hover="(shade) => tryOut(shade && { shade })"
  />
  <OverrideNote :steps="['watermark']" />
</template>

<style scoped>
.hint {
  margin-top: 6px;
  color: var(--ink-soft);
  font-size: 12px;
}

.spots {
  display: grid;
  grid-template-columns: repeat(3, 34px);
  gap: 3px;
  margin-top: 7px;
}

.spots button {
  height: 26px;
  padding: 0;
  border: 1px solid var(--edge);
  border-radius: 3px;
  background: #ffffff;
}

.spots button.on {
  border-color: var(--clover);
  background: var(--clover);
}

.slider-row {
  margin-top: 5px;
}
</style>
