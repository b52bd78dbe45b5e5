<script setup lang="ts">
import { computed, ref } from 'vue'

import type { BadgeForm, Edit, Photo } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { useBench } from '../../../stores/bench'
import { useSelection } from '../../../stores/selection'
import OwnWays from '../../shared/OwnWays.vue'
import BadgeEditor from './BadgeEditor.vue'
import FormGlyph from './FormGlyph.vue'
import PictureEditor from './PictureEditor.vue'
import PicturePicker from './PicturePicker.vue'
import PieceList from './PieceList.vue'
import PiecePlace from './PiecePlace.vue'
import RepeatSection from './RepeatSection.vue'
import TextEditor from './TextEditor.vue'
import { FORMS } from './forms'

type Purpose = Extract<Edit, { kind: 'add_text' }>['purpose']

const PURPOSES: { key: Purpose; label: string }[] = [
  { key: 'headline', label: 'Headline' },
  { key: 'line', label: 'Line' },
  { key: 'small', label: 'Small print' },
  { key: 'price', label: 'Price' },
]

const bench = useBench()
const selection = useSelection()
const { pieces, add } = usePieceEdits()
const offering = ref<'badges' | 'pictures' | null>(null)
const chosen = computed(() => selection.only)

const addText = async (purpose: Purpose) => {
  await add({ kind: 'add_text', purpose, text: '' })
  if (selection.only) selection.write(selection.only.id)
}

function addBadge(form: BadgeForm): void {
  offering.value = null
  void add({ kind: 'add_badge', form })
}

function addPicture({ sha256, width, height }: Photo): void {
  offering.value = null
  void add({ kind: 'add_picture', sha256, ratio: width / height })
}

function offer(what: 'badges' | 'pictures'): void {
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
  <div class="adding two">
    <button type="button" class="action" :aria-expanded="offering === 'badges'" @click="offer('badges')">
      Badge or arrow
    </button>
    <button type="button" class="action" :aria-expanded="offering === 'pictures'" @click="offer('pictures')">
      Logo or picture
    </button>
  </div>
  <div v-if="offering === 'badges'" class="forms" role="group" aria-label="Badge to add">
    <button v-for="(name, form) in FORMS" :key="form" type="button" :title="name" :aria-label="name" @click="addBadge(form)">
      <FormGlyph :form="form" />
    </button>
  </div>
  <PicturePicker v-if="offering === 'pictures'" @choose="addPicture" />
  <PieceList v-if="pieces.length" />
  <p v-else class="hint">Words, arrows and logos appear on the picture; drag them there.</p>
  <template v-if="selection.ids.length">
    <TextEditor v-if="chosen?.kind === 'text'" :key="chosen.id" :piece="chosen" />
    <BadgeEditor v-else-if="chosen?.kind === 'badge'" :key="chosen.id" :piece="chosen" />
    <PictureEditor v-else-if="chosen?.kind === 'picture'" :key="chosen.id" :piece="chosen" />
    <RepeatSection v-if="chosen" :piece="chosen" />
    <PiecePlace />
  </template>
  <OwnWays v-if="bench.document!.sizes.length > 1" step="pieces" />
</template>

<style scoped>
.adding {
  display: grid;
  grid-template-columns: repeat(4, auto);
  gap: 5px;
  margin-top: 5px;
}

.adding.two {
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
