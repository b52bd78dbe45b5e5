<script setup lang="ts">
// The letters' colour, with the contrast that it has where they lie.

import { ref, shallowRef } from 'vue'

import type { Edit, Proposal, Legibility, TextPiece } from '../../../api/types'
import { usePieceEdits } from '../../../composables/pieceEdits'
import { whenStageRests } from '../../../composables/stageRest'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import ColourField from '../../shared/ColourField.vue'
import { LETTER_COLOURS } from '../colours'

const props = defineProps<{ piece: TextPiece }>()

const IDLE_MS = 150

const bench = useBench()
const notices = useNotices()
const { set } = usePieceEdits()
const legible = shallowRef<Legibility | null>(null)
const place = ref(0)

whenStageRests(
  () => props.piece,
  async () => {
    try {
      legible.value = await bench.ask<Legibility>('/bench/legibility', { piece: props.piece.id })
    } catch (error) {
      notices.tell(error)
    }
  },
  IDLE_MS,
)

/** Ask the service for a mend, and make it. */
async function mend(path: string, more: object = {}): Promise<void> {
  try {
    const proposal = await bench.ask<Proposal>(path, { piece: props.piece.id, ...more })
    // What was measured is this size's; where it alone is to change, the others keep theirs.
    if (proposal.edit) await bench.edit({ ...proposal.edit, only_this_size: bench.onlyThisSize } as Edit)
    notices.say(proposal.message)
  } catch (error) {
    notices.tell(error)
  }
}

async function calm(): Promise<void> {
  await mend('/bench/calm', { place: place.value })
  place.value += 1
}
</script>

<template>
  <p class="field-label">
    Colour
    <span v-if="legible" :data-tip="`${legible.ratio.toFixed(1)} to 1; ${legible.wanted} is needed at this size`">
      <i class="check-light" :class="{ look: legible.ratio < legible.wanted }"></i>
      contrast {{ legible.ratio.toFixed(1) }}
    </span>
  </p>
  <ColourField
    label="Letter colour"
    :value="piece.colour"
    :swatches="LETTER_COLOURS"
    @change="(colour) => bench.edit(set({ colour }))"
    @hover="(colour) => (bench.tryOut = colour ? set({ colour }) : null)"
  />
  <p class="mends">
    <button
      v-if="legible && legible.ratio < legible.wanted"
      type="button"
      class="link strong"
      @click="mend('/bench/readable')"
    >
      Improve the contrast
    </button>
    <button type="button" class="link" @click="calm">{{ place ? 'Next calm place' : 'Find a calm place' }}</button>
  </p>
</template>

<style scoped>
.mends {
  display: flex;
  gap: 14px;
  margin-top: 3px;
}
</style>
