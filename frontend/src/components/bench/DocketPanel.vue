<script setup lang="ts">
import { computed } from 'vue'

import type { DocketLine as Line, Edit, Photo } from '../../api/types'
import { useBench } from '../../stores/bench'
import DocketLine from './DocketLine.vue'
import { PANELS } from './panels'
import StyleLine from './style/StyleLine.vue'

defineProps<{ photo: Photo | null }>()

const bench = useBench()

/** The lines of the docket; a border of one band and thickness is said in pixels too. */
const lines = computed(() =>
  bench.draft!.docket.map((line) => {
    const [top, ...others] = bench.layout!.border
    const isOne = bench.here!.border.bands.length === 1
    const isEven = isOne && top > 0 && others.every((side) => side === top)
    return line.key === 'border' && line.is_set && isEven
      ? { ...line, summary: `${line.summary} (${top}\u00a0px)` }
      : line
  }),
)

/** Switching on a step in which there is nothing yet opens it. */
async function turn({ key }: Line, on: boolean): Promise<void> {
  await bench.edit({ kind: 'switch_step', step: key, on, only_this_size: bench.onlyThisSize } as Edit)
  const line = bench.draft?.docket.find((one) => one.key === key)
  if (on && !line?.is_set) bench.openStep = key
}

function reset({ key }: Line): void {
  void bench.edit({ kind: 'reset_step', step: key } as Edit)
}
</script>

<template>
  <div class="docket ticket-edge">
    <div class="scroll">
      <header>
        <div>
          <h1>Docket</h1>
          <StyleLine />
        </div>
        <p v-if="photo">
          <span :title="photo.name">{{ photo.name }}</span>
          {{ photo.width }} × {{ photo.height }}
        </p>
      </header>
      <DocketLine
        v-for="(line, index) in lines"
        :key="line.key"
        :line="line"
        :number="index + 1"
        @reset="reset(line)"
        @switch="(on) => turn(line, on)"
      >
        <component :is="PANELS[line.key]" :photo="photo" />
      </DocketLine>
    </div>
  </div>
</template>

<style scoped>
.docket {
  --behind-ticket: var(--surround-mid);

  position: relative;
  z-index: 2;
  height: 100%;
  min-width: 0;
  background: var(--paper);
  box-shadow: 2px 0 10px rgb(0 0 0 / 27%);
}

/* The open step takes the room that the others leave, and scrolls inside itself. */
.scroll {
  display: flex;
  flex-direction: column;
  height: 100%;
  padding-bottom: 12px;
  overflow: hidden auto;
}

header {
  display: flex;
  flex: none;
  justify-content: space-between;
  margin: 0 14px;
  padding: 13px 4px 9px;
  border-bottom: 2px solid var(--ink);
}

h1 {
  font-size: 19px;
  font-weight: 700;
  letter-spacing: 0.3px;
}

header p {
  min-width: 0;
  color: var(--ink-soft);
  font-size: 12px;
  text-align: right;
}

header p span {
  display: block;
  max-width: 170px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
