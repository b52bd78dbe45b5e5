<script setup lang="ts">
import { computed } from 'vue'

import { explain, vTip } from '../../../composables/explanations'
import { useBench } from '../../../stores/bench'
import { useStage, type Guides, type Surround } from '../../../stores/stage'
import { vRadios } from '../../../composables/radios'

const SURROUNDS: { key: Surround; colour: string }[] = [
  { key: 'light', colour: '#d5d5d2' },
  { key: 'mid', colour: '#8b8b89' },
  { key: 'dark', colour: '#333333' },
]

const GUIDE_WORDS: Record<Guides, string> = {
  thirds: 'Thirds',
  centre: 'Centre',
  diagonals: 'Diagonals',
  none: 'No guides',
}

const bench = useBench()
const stage = useStage()

const percent = computed(() => {
  const value = 100 * stage.zoom * window.devicePixelRatio
  return `${value < 10 ? value.toFixed(1) : Math.round(value)} %`
})
const space = computed(() => (stage.isCropping ? 'Photo pixels' : 'Output pixels'))
</script>

<template>
  <div class="bar" role="toolbar" aria-label="View">
    <button v-tip="explain('Fit')" type="button" :aria-pressed="stage.isFitted" @click="stage.fit">
      Fit
    </button>
    <button v-tip="explain('100 %')" type="button" @click="stage.actualPixels">100 %</button>
    <button v-tip="explain('Corner')" type="button" @click="stage.nextEdge">Corner</button>
    <span class="zoom">{{ percent }}</span>
    <i aria-hidden="true"></i>
    <button
      v-tip="explain('Before')"
      type="button"
      :aria-pressed="stage.before"
      @click="stage.before = !stage.before"
    >
      Before
    </button>
    <button
      v-tip="explain('Split')"
      type="button"
      :aria-pressed="stage.isSplit"
      @click="stage.isSplit = !stage.isSplit"
    >
      Split
    </button>
    <button
      v-tip="explain('Margin')"
      type="button"
      :aria-pressed="stage.margin"
      @click="stage.margin = !stage.margin"
    >
      Margin
    </button>
    <button
      v-tip="explain('As seen')"
      type="button"
      :aria-pressed="stage.asSeen"
      @click="stage.asSeen = !stage.asSeen"
    >
      As seen
    </button>
    <button
      v-if="stage.isCropping"
      v-tip="explain('Guides')"
      type="button"
      @click="stage.nextGuides"
    >
      {{ GUIDE_WORDS[stage.guides] }}
    </button>
    <span class="spring"></span>
    <span v-radios class="surrounds" role="radiogroup" aria-label="Surround">
      <button
        v-for="{ key, colour } in SURROUNDS"
        :key="key"
        type="button"
        role="radio"
        class="surround"
        :aria-label="`${key} surround`"
        :aria-checked="stage.surround === key"
        @click="stage.surround = key"
      >
        <b :style="{ background: colour }"></b>
      </button>
    </span>
    <span class="readout">
      <template v-if="stage.readout">
        <span :data-tip="space">{{ stage.readout.x }}, {{ stage.readout.y }}</span>
        <template v-if="!bench.isDragging">
          <b class="spot" :style="{ background: stage.readout.colour ?? 'transparent' }"></b>
          {{ stage.readout.colour ?? 'transparent' }}
        </template>
      </template>
      <template v-else-if="bench.layout">{{ bench.layout.width }} × {{ bench.layout.height }} px</template>
    </span>
  </div>
</template>

<style scoped>
.bar {
  display: flex;
  gap: 9px;
  align-items: center;
  min-width: 0;
  padding: 6px 14px;
  overflow: hidden;
  background: #4c4c4a;
  color: #f4f3ee;
  font-size: 12px;
  white-space: nowrap;
}

.bar > button {
  min-height: 26px;
  padding: 3px 9px;
  border: 1.5px solid transparent;
  border-radius: 4px;
  background: #333331;
  font-weight: 500;
}

.bar > button[aria-pressed='true'] {
  border-color: #f5f1e8;
}

.zoom {
  min-width: 44px;
}

i {
  width: 1px;
  height: 16px;
  background: #8a8a87;
}

.spring {
  flex: 1;
}

.surrounds {
  display: flex;
}

.surround {
  display: grid;
  place-items: center;
  width: 24px;
  height: 26px;
  padding: 0;
  border: 0;
  background: none;
}

.surround b {
  width: 15px;
  height: 15px;
  border: 1px solid #bdbdb9;
  border-radius: 3px;
}

.surround[aria-checked='true'] b {
  outline: 2px solid #ffffff;
  outline-offset: 1px;
}

.readout {
  min-width: 150px;
  text-align: right;
}

@media (max-width: 1400px) {
  .bar {
    flex-wrap: wrap;
    gap: 5px;
    padding: 5px 6px;
  }

  .bar > button {
    padding: 3px 6px;
  }

  .zoom,
  .bar > i {
    display: none;
  }

  .readout {
    min-width: 0;
  }
}

.spot {
  display: inline-block;
  width: 11px;
  height: 11px;
  margin: 0 3px 0 8px;
  vertical-align: -1px;
}
</style>
