<script setup lang="ts">
import { computed, ref } from 'vue'

import type { BadgeForm, Edit, KeptSubject, Photo, Piece, UsedMark } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useSelection } from '../../../stores/selection'
import { useSwatches } from '../../../stores/swatches'
import OverrideNote from '../../shared/OverrideNote.vue'
import BadgeEditor from './BadgeEditor.vue'
import CodeForm from './CodeForm.vue'
import FormGlyph from './FormGlyph.vue'
import MarkEditor from './MarkEditor.vue'
import PictureEditor from './PictureEditor.vue'
import PicturePicker from './PicturePicker.vue'
import PieceList from './PieceList.vue'
import PiecePlace from './PiecePlace.vue'
import RepeatSection from './RepeatSection.vue'
import SpaceSection from './SpaceSection.vue'
import SubjectPicker from './SubjectPicker.vue'
import TextEditor from './TextEditor.vue'
import { FORMS } from './forms'
import BadgePicker from '../../library/BadgePicker.vue'
import MarkShelf from '../watermark/MarkShelf.vue'

type Purpose = Extract<Edit, { kind: 'add_text' }>['purpose']

const PURPOSES: { key: Purpose; label: string }[] = [
  { key: 'headline', label: 'Headline' },
  { key: 'line', label: 'Text line' },
  { key: 'small', label: 'Small print' },
  { key: 'price', label: 'Price' },
]

type Offer = 'badges' | 'pictures' | 'marks' | 'codes'

const OFFERS: { key: Offer; label: string }[] = [
  { key: 'badges', label: 'Badge, arrow' },
  { key: 'pictures', label: 'Logo, picture' },
  { key: 'marks', label: 'Saved mark' },
  { key: 'codes', label: 'QR code' },
]

const selection = useSelection()
const { pieces, add } = usePieceEdits()
const swatches = useSwatches()
const offering = ref<Offer | null>(null)
const chosen = computed(() => selection.only)

const addText = async (purpose: Purpose) => {
  await add({ kind: 'add_text', purpose, text: '', palette: await swatches.whenKnown() })
  if (selection.only) selection.write(selection.only.id)
}

function addBadge(form: BadgeForm): void {
  offering.value = null
  void add({ kind: 'add_badge', form })
}

function addParts(parts: Piece[]): void {
  offering.value = null
  void add({ kind: 'paste_pieces', pieces: parts })
}

function addPicture({ sha256, width, height }: Photo): void {
  offering.value = null
  void add({ kind: 'add_picture', sha256, ratio: width / height })
}

function addSubject({ photo, ratio, subject }: KeptSubject): void {
  offering.value = null
  void add({ kind: 'add_picture', sha256: photo, ratio, subject })
}

function addMark(mark: UsedMark | null): void {
  offering.value = null
  if (mark) void add({ kind: 'add_mark', mark })
}

function offer(what: Offer): void {
  offering.value = offering.value === what ? null : what
}
</script>

<template>
  <p class="field-label">Add words</p>
  <div class="adding">
    <button v-for="{ key, label } in PURPOSES" :key="key" type="button" class="action" @click="addText(key)">
      {{ label }}
    </button>
  </div>
  <div class="adding offers">
    <button
      v-for="{ key, label } in OFFERS"
      :key="key"
      type="button"
      class="action"
      :aria-expanded="offering === key"
      @click="offer(key)"
    >
      {{ label }}
    </button>
  </div>
  <div v-if="offering === 'badges'" class="forms" role="group" aria-label="Badge to add">
    <button v-for="(name, form) in FORMS" :key="form" type="button" :data-tip="name" :aria-label="name" @click="addBadge(form)">
      <FormGlyph :form="form" />
    </button>
  </div>
  <BadgePicker v-if="offering === 'badges'" @take="addParts" />
  <template v-if="offering === 'pictures'">
    <SubjectPicker @choose="addSubject" />
    <PicturePicker @choose="addPicture" />
  </template>
  <CodeForm v-if="offering === 'codes'" @choose="addPicture" />
  <MarkShelf v-if="offering === 'marks'" :used="null" @take="addMark" />
  <PieceList v-if="pieces.length" />
  <p v-else class="hint">Words, arrows and logos appear on the picture; drag them there.</p>
  <template v-if="selection.ids.length">
    <TextEditor v-if="chosen?.kind === 'text'" :key="chosen.id" :piece="chosen" />
    <BadgeEditor v-else-if="chosen?.kind === 'badge'" :key="chosen.id" :piece="chosen" />
    <PictureEditor v-else-if="chosen?.kind === 'picture'" :key="chosen.id" :piece="chosen" />
    <MarkEditor v-else-if="chosen?.kind === 'mark'" :key="chosen.id" :piece="chosen" />
    <RepeatSection v-if="chosen" :piece="chosen" />
    <SpaceSection v-if="chosen" :piece="chosen" />
    <PiecePlace />
  </template>
  <OverrideNote :steps="['pieces']" :short="!!chosen" />
</template>

<style scoped>
.adding {
  display: grid;
  grid-auto-columns: auto;
  grid-auto-flow: column;
  gap: 5px;
  margin-top: 5px;
}

.offers {
  grid-auto-flow: row;
  grid-template-columns: 1fr 1fr;
}

.adding .action {
  padding: 4px 6px;
  font-size: 12px;
}

.forms {
  display: grid;
  grid-template-columns: repeat(7, 1fr);
  gap: 4px;
  margin-top: 6px;
}

.forms button {
  display: grid;
  place-items: center;
  height: 32px;
  padding: 0;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: #ffffff;
}

.hint {
  margin-top: 10px;
  color: var(--ink-soft);
  font-size: 12px;
}
</style>
