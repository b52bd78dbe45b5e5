<script setup lang="ts">
// What the picture shows, for those who cannot see it: written into every file of the finish.

import { computed, ref } from 'vue'

import type { Proposal } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'

const bench = useBench()
const notices = useNotices()
const field = ref<HTMLTextAreaElement>()
const text = computed(() => bench.here!.export.alt_text ?? '')

function set(alt_text: string): void {
  void bench.edit({ kind: 'set_file_details', alt_text })
}

async function suggest(): Promise<void> {
  try {
    const { edit, message } = await bench.ask<Proposal>('/bench/alt-text')
    if (!edit) return
    await bench.edit(edit)
    field.value?.focus()
    notices.say(message)
  } catch (error) {
    notices.tell(error)
  }
}
</script>

<template>
  <label>
    <span class="field-label">Alternative text <span>what it shows, read aloud</span></span>
    <textarea
      ref="field"
      class="text-field"
      rows="2"
      maxlength="1000"
      :value="text"
      @change="set(($event.target as HTMLTextAreaElement).value)"
    />
  </label>
  <p v-if="!text"><button type="button" class="link" @click="suggest">Suggest one</button></p>
</template>

<style scoped>
textarea {
  resize: vertical;
  font: inherit;
}
</style>
