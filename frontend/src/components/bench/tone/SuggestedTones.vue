<script setup lang="ts">
// What the service would set, made at once, and less and more of it to choose from.

import { ref, shallowRef } from 'vue'

import type { Edit, ToneProposals } from '../../../api/types'
import { useTips, vTip } from '../../../composables/explanations'
import { vRadios } from '../../../composables/radios'
import { useToneEdits } from '../../../composables/toneEdits'
import { useBench } from '../../../stores/bench'
import { useNotices } from '../../../stores/notices'
import TryPicture from '../TryPicture.vue'

type Choice = ToneProposals['choices'][number]

const bench = useBench()
const notices = useNotices()
const tip = useTips()
const { tone } = useToneEdits()
const choices = shallowRef<Choice[]>([])
const looking = ref(false)

async function suggest(): Promise<void> {
  looking.value = true
  try {
    const found = await bench.ask<ToneProposals>('/bench/auto')
    choices.value = found.choices
    const measured = found.choices.find(({ name }) => name === 'as measured')
    if (measured) await bench.edit(editOf(measured))
    notices.say(found.message)
  } catch (error) {
    notices.tell(error)
  } finally {
    looking.value = false
  }
}

function editOf(choice: Choice): Edit {
  return { ...choice.edit, only_this_size: bench.onlyThisSize }
}

function isOn(choice: Choice): boolean {
  const now = tone.value as unknown as Record<string, unknown>
  return Object.entries(choice.edit.changes).every(([field, value]) => value === null || now[field] === value)
}
</script>

<template>
  <p class="suggest">
    <button v-tip="tip('Suggest a tone')" type="button" class="link strong" :disabled="looking" @click="suggest">
      {{ looking ? 'Measuring…' : 'Suggest a tone' }}
    </button>
  </p>
  <div v-if="choices.length" v-radios class="choices" role="radiogroup" aria-label="Suggested tone">
    <TryPicture
      v-for="choice in choices"
      :key="choice.name"
      :name="choice.name"
      :channel="`tone-${choice.name}`"
      :edit="editOf(choice)"
      :is-on="isOn(choice)"
      @choose="bench.edit(editOf(choice))"
      @hover="(on: boolean) => (bench.tryOut = on ? editOf(choice) : null)"
    />
  </div>
</template>

<style scoped>
.suggest {
  margin-top: 4px;
  font-size: 12px;
}

.choices {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 6px;
  margin: 6px 0;
}
</style>
