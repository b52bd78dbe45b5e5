<script setup lang="ts">
// Some settings of the tone under one fold, which says those that are set.

import { computed } from 'vue'

import { settingWords, useToneEdits, type Setting } from '../../../composables/toneEdits'
import FoldSection from '../../shared/FoldSection.vue'
import AmountRow from './AmountRow.vue'

const props = defineProps<{ title: string; names: Setting[] }>()

const { tone, reset, isSet } = useToneEdits()
const set = computed(() => props.names.filter(isSet))
const summary = computed(
  () => set.value.map((name) => `${settingWords(name)} ${tone.value[name]}`).join(', ') || 'unchanged',
)
</script>

<template>
  <FoldSection :title="title" :summary="summary">
    <AmountRow v-for="name in names" :key="name" :name="name" />
    <button v-if="set.length" type="button" class="link" @click="reset(names)">Reset these</button>
  </FoldSection>
</template>
