<script setup lang="ts">
// Every size beside the others, as wide as people usually see it, on a neutral page.

import type { SizeLaid } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import { useStage } from '../../../stores/stage'
import ProofPicture from '../proofs/ProofPicture.vue'

const bench = useBench()
const stage = useStage()

const scale = ({ seen_width, width }: SizeLaid) => seen_width / width

async function workOn(id: string): Promise<void> {
  await bench.workOn(id)
  stage.asSeen = false
}
</script>

<template>
  <div class="seen" :class="{ night: stage.surround === 'dark' }" role="group" aria-label="Every size as seen">
    <button
      v-for="size in bench.draft!.sizes"
      :key="size.id"
      type="button"
      :class="{ on: size.id === bench.sizeId }"
      @click="workOn(size.id)"
    >
      <ProofPicture :size="size" :scale="scale(size)" channel="seen" />
      <span class="name">{{ size.name }} <span>seen {{ size.seen_width }} px wide</span></span>
    </button>
  </div>
</template>

<style scoped>
.seen {
  display: flex;
  flex-wrap: wrap;
  gap: 26px;
  align-content: flex-start;
  align-items: flex-end;
  padding: 26px;
  overflow: auto;
  background: #f1f1ef;
}

.seen.night {
  background: var(--surround-dark);
  color: #f4f3ee;
}

button {
  padding: 0;
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
}

.name {
  display: block;
  margin-top: 6px;
  padding: 1px 0;
  font-size: 12px;
  font-weight: 600;
}

.name span {
  font-weight: 400;
}

.on .name {
  text-decoration: underline;
  text-decoration-thickness: 2px;
  text-underline-offset: 3px;
}
</style>
