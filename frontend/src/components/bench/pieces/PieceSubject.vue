<script setup lang="ts">
// What of a picture is shown: all of it, or only the subject that was cut out of it.

import { computed, onMounted } from 'vue'

import type { PicturePiece, UsedSubject } from '../../../api/types'
import { useCuttingErrand } from '../../../composables/cuttingErrand'
import { useBench } from '../../../stores/bench'
import { useSubjects } from '../../../stores/subjects'

const props = defineProps<{ piece: PicturePiece }>()

const bench = useBench()
const subjects = useSubjects()
const { begin } = useCuttingErrand()
const ofThisPicture = computed(() => subjects.kept.filter(({ photo }) => photo === props.piece.sha256))
const newer = computed(() =>
  ofThisPicture.value.find(
    ({ subject }) => subject.id === props.piece.subject?.id && subject.version > props.piece.subject.version,
  ),
)

onMounted(subjects.load)

function show(subject: UsedSubject | null): void {
  void bench.edit({ kind: 'set_piece_subject', id: props.piece.id, subject })
}
</script>

<template>
  <p v-if="piece.subject" class="shown">
    “{{ piece.subject.name }}” is shown without its background.
    <button type="button" class="link strong" @click="begin(piece)">Edit the cut-out</button>
    <button type="button" class="link" @click="show(null)">Show the whole photo</button>
  </p>
  <p v-else class="shown">
    <button type="button" class="action" @click="begin(piece)">Cut the subject out…</button>
    <button
      v-for="{ subject } in ofThisPicture"
      :key="subject.id"
      type="button"
      class="link"
      @click="show(subject)"
    >
      Only “{{ subject.name }}”
    </button>
  </p>
  <p v-if="newer" class="shown">
    This finish has version {{ piece.subject!.version }}; version {{ newer.subject.version }} is kept.
    <button type="button" class="link strong" @click="show(newer.subject)">Use the new version</button>
  </p>
</template>

<style scoped>
.shown {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  align-items: baseline;
  margin-top: 8px;
  font-size: 12px;
}
</style>
