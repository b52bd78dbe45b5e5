<script setup lang="ts">
// Keeping the subject for other finishes, as a picture on nothing that knows its photo.

import { computed, onMounted, ref } from 'vue'

import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import { useSubjects } from '../../../stores/subjects'
import KeepForm from '../../shared/KeepForm.vue'

const bench = useBench()
const notices = useNotices()
const subjects = useSubjects()
const naming = ref(false)
const ofThisPhoto = computed(() => subjects.kept.filter(({ photo }) => photo === bench.document!.photo?.sha256))

onMounted(subjects.load)

async function keep(name: string): Promise<void> {
  const made = await subjects.keep(name)
  if (!made) return
  naming.value = false
  notices.say(
    made.subject.version > 1
      ? `“${name}” is saved as version ${made.subject.version}.`
      : `“${name}” is saved. Find it in Text & badges under “Logo, picture”.`,
  )
}
</script>

<template>
  <ul v-if="ofThisPhoto.length" aria-label="Saved subjects of this photo">
    <li v-for="one in ofThisPhoto" :key="one.subject.id">
      <b>{{ one.subject.name }}</b>
      <button type="button" class="link" data-tip="Replaces it with the cut-out as it is now" @click="keep(one.subject.name)">Save again</button>
      <button v-if="one.older_uses" type="button" class="link" @click="subjects.renew(one)">
        Update {{ one.older_uses }} {{ one.older_uses === 1 ? 'finish' : 'finishes' }}
      </button>
      <button type="button" class="link" @click="subjects.forget(one)">Remove</button>
    </li>
  </ul>
  <KeepForm v-if="naming" label="Name of this subject" example="Speckled mug" @keep="keep" />
  <button v-else type="button" class="action" @click="naming = true">Save this subject…</button>
</template>

<style scoped>
.action {
  margin-top: 10px;
}

li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
  align-items: baseline;
  margin-top: 6px;
  font-size: 12px;
}

b {
  font-weight: 600;
}
</style>
