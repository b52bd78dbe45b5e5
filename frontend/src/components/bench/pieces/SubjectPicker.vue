<script setup lang="ts">
// Kept subjects to choose one from.

import { onMounted } from 'vue'

import type { KeptSubject } from '../../../api/types'
import { useSubjects } from '../../../stores/subjects'

const emit = defineEmits<{ choose: [kept: KeptSubject] }>()

const subjects = useSubjects()

onMounted(subjects.load)
</script>

<template>
  <template v-if="subjects.kept.length">
    <p class="field-label">Saved subjects</p>
    <div class="subjects" role="group" aria-label="Saved subjects">
      <button
        v-for="one in subjects.kept"
        :key="one.subject.id"
        type="button"
        :data-tip="one.subject.name"
        :aria-label="one.subject.name"
        @click="emit('choose', one)"
      >
        <img :src="`/api/subjects/${one.subject.id}/picture?v=${one.subject.version}`" alt="" />
      </button>
    </div>
  </template>
</template>

<style scoped>
.subjects {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 5px;
  max-height: 150px;
  padding: 4px;
  overflow-y: auto;
}

button {
  height: 52px;
  padding: 2px;
  border: 1px solid var(--edge);
  border-radius: 4px;
  background: var(--paper-deep);
}

img {
  display: block;
  width: 100%;
  height: 100%;
  object-fit: contain;
}
</style>
