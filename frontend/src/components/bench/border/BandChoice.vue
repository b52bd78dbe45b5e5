<script setup lang="ts" generic="Field extends 'line' | 'corners' | 'profile' | 'texture' | 'look'">
// A band's choice among a few words.

import type { BandChanges } from '../../../api/types'
import { useBandEdits } from '../../../composables/bandEdits'
import { useBench } from '../../../stores/bench'
import ChoiceChips from '../../shared/ChoiceChips.vue'

type Word = NonNullable<BandChanges[Field]> & string

const props = defineProps<{ label: string; field: Field; words: Word[]; chosen: Word }>()

const bench = useBench()
const { change } = useBandEdits()

const of = (word: Word) => change({ [props.field]: word } as BandChanges)
</script>

<template>
  <p class="field-label">{{ label }}</p>
  <ChoiceChips
    :label="label"
    :choices="words.map((word) => ({ key: word, label: word }))"
    :chosen="chosen"
    @choose="(word) => bench.edit(of(word))"
    @hover="(word) => (bench.tryOut = word ? of(word) : null)"
  />
</template>
