<script setup lang="ts">
// What all chosen pieces have: where they lie, how they are laid on the picture.

import { computed, ref } from 'vue'

import type { Edit, Piece, PieceChanges } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useBadges } from '../../../stores/badges'
import { useBench } from '../../../stores/bench'
import { useSelection } from '../../../stores/selection'
import FoldSection from '../../shared/FoldSection.vue'
import KeepForm from '../../shared/KeepForm.vue'
import SliderRow from '../../shared/SliderRow.vue'
import BlendSelect from '../BlendSelect.vue'
import TickBox from '../../shared/TickBox.vue'

type To = Extract<Edit, { kind: 'align_pieces' }>['to']

const ALIGNS: { to: To; label: string }[] = [
  { to: 'left', label: 'left' },
  { to: 'centre', label: 'centre' },
  { to: 'right', label: 'right' },
  { to: 'top', label: 'top' },
  { to: 'middle', label: 'middle' },
  { to: 'bottom', label: 'bottom' },
]
const SHADOW = { x: 0, y: 0.006, blur: 0.008, colour: '#000000', opacity: 0.6 }

const bench = useBench()
const selection = useSelection()
const { set, remove, duplicate } = usePieceEdits()

const first = computed<Piece>(() => selection.pieces[0]!)
const isOnPhoto = computed(() => first.value.anchor.kind === 'photo')
/** What is different about the chosen piece on this size. */
const overrides = computed(() => bench.here!.overrides.find(({ piece }) => piece === first.value.id)?.fields ?? [])
const isHere = computed(() => first.value.sizes === null || first.value.sizes?.includes(bench.sizeId))

const change = (changes: Partial<PieceChanges>) => void bench.edit(set(changes))

function align(to: To): void {
  void bench.edit({ kind: 'align_pieces', ids: selection.ids, to, only_this_size: bench.onlyThisSize })
}

function toggleAnchor(): void {
  void bench.edit({ kind: 'anchor_piece', id: first.value.id, to: isOnPhoto.value ? 'margin' : 'photo' })
}

const isGroup = computed(
  () => !!first.value.group && selection.pieces.every(({ group }) => group === first.value.group),
)

const badges = useBadges()
const naming = ref(false)
/** Pictures are saved by themselves. */
const canBeKept = computed(() => selection.pieces.every(({ kind }) => kind !== 'picture'))

async function keep(name: string): Promise<void> {
  naming.value = !(await badges.keep(name, selection.pieces))
}

function group(): void {
  void bench.edit({ kind: 'group_pieces', ids: selection.ids, together: !isGroup.value })
}

/** On this size alone, or on all of them again. */
function toggleSizes(): void {
  change({ sizes: first.value.sizes === null ? [bench.sizeId] : null })
}
</script>

<template>
  <TickBox v-if="bench.here!.cut_out.on" label="Behind the subject" :checked="first.behind" @update:checked="change({ behind: !first.behind })" />
  <FoldSection title="Position and effects" :summary="isOnPhoto ? 'on the photo' : 'on the margin'">
    <p class="field-label">{{ selection.ids.length > 1 ? 'Align to each other' : 'Align to the margin' }}</p>
    <div class="aligns">
      <button v-for="{ to, label } in ALIGNS" :key="to" type="button" class="action" @click="align(to)">{{ label }}</button>
    </div>
    <button v-if="selection.ids.length > 1" type="button" class="link" @click="align('both')">Centre on each other</button>
    <SliderRow
      label="Angle"
      unit="°"
      :value="first.angle"
      :min="-180"
      :max="180"
      @reset="change({ angle: 0 })"
      @move="(angle) => bench.drag(set({ angle }))"
      @change="(angle) => bench.slide(set({ angle }))"
    />
    <SliderRow
      label="Opacity"
      :value="100 * first.opacity"
      :max="100"
      @move="(value) => bench.drag(set({ opacity: value / 100 }))"
      @change="(value) => bench.slide(set({ opacity: value / 100 }))"
    />
    <div class="blend">
      <span>Blend</span>
      <BlendSelect :blend="first.blend" @choose="(blend) => change({ blend })" />
    </div>
    <TickBox label="Soft shadow" :checked="!!first.shadow" @update:checked="change({ shadow: first.shadow ? null : SHADOW })" />
    <SliderRow
      v-if="first.shadow"
      label="Blur"
      :digits="1"
      :step="0.1"
      :value="100 * first.shadow.blur"
      :max="6"
      @move="(value) => bench.drag(set({ shadow: { ...first.shadow!, blur: value / 100 } }))"
      @change="(value) => bench.slide(set({ shadow: { ...first.shadow!, blur: value / 100 } }))"
    />
    <TickBox label="Over the border" :checked="first.over_border" @update:checked="change({ over_border: !first.over_border })" />
    <TickBox label="Cut off at the shape" :checked="first.clipped" @update:checked="change({ clipped: !first.clipped })" />
    <TickBox v-if="selection.ids.length === 1" label="Stay on this spot of the photo" :checked="isOnPhoto" @update:checked="toggleAnchor" />
    <label v-if="bench.document!.sizes.length > 1" class="tick">
      <input type="checkbox" :checked="first.sizes !== null" @change="toggleSizes" />
      {{ first.sizes === null || isHere ? 'Only on this size' : 'Only on other sizes' }}
    </label>
  </FoldSection>
  <p class="links">
    <button type="button" class="link" @click="duplicate">Duplicate</button>
    <button type="button" class="link" @click="remove">Remove</button>
    <button v-if="selection.ids.length > 1" type="button" class="link" @click="group">
      {{ isGroup ? 'ungroup' : 'group' }}
    </button>
    <button v-if="canBeKept" type="button" class="link" @click="naming = !naming">Save as a badge</button>
  </p>
  <KeepForm v-if="naming && canBeKept" label="Name of this badge" example="New glaze" @keep="keep" />
  <p v-if="overrides.length && selection.ids.length === 1" class="overrides">
    Different on this size: {{ overrides.join(', ') }}.
    <button type="button" class="link" @click="bench.edit({ kind: 'follow_piece', id: first.id })">
      use the shared setting
    </button>
  </p>
</template>

<style scoped>
.aligns {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 4px;
}

.aligns .action {
  min-height: 26px;
  padding: 2px 6px;
  font-size: 12px;
}

.tick {
  margin: 2px 0 0;
}

.slider-row {
  margin-top: 4px;
}

.blend {
  display: grid;
  grid-template-columns: 66px 1fr;
  gap: 14px;
  align-items: center;
  margin-top: 5px;
  font-size: 12px;
}

.links {
  display: flex;
  gap: 16px;
  margin-top: 8px;
}

.overrides {
  margin-top: 5px;
  color: var(--ink-soft);
  font-size: 12px;
}

.fold {
  margin-top: 10px;
}
</style>
