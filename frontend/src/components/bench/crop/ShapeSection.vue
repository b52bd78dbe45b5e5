<script setup lang="ts">
import { computed } from 'vue'

import type { Edit, Shape } from '../../../api/types'
import { useBench } from '../../../stores/bench'
import SliderRow from '../../shared/SliderRow.vue'
import ShapeChoice from '../ShapeChoice.vue'

const bench = useBench()
const shape = computed(() => bench.size!.shape)
const box = computed(() => bench.layout!.shape_box)

const of = (now: Shape): Edit => ({ kind: 'set_shape', shape: now })
const edit = (fields: Partial<Shape>): Edit => of({ ...shape.value, ...fields } as Shape)
</script>

<template>
  <ShapeChoice :shape="shape" :of="of" />
  <SliderRow
    label="Scale"
    :value="shape.scale * 100"
    :min="5"
    :max="100"
    @move="(percent) => bench.drag(edit({ scale: percent / 100 }))"
    @change="(percent) => bench.slide(edit({ scale: percent / 100 }))"
  />
  <div v-if="shape.scale < 1 || box.width < bench.layout!.width || box.height < bench.layout!.height">
    <SliderRow
      label="Across"
      :value="shape.x * 100"
      :max="100"
      @move="(percent) => bench.drag(edit({ x: percent / 100 }))"
      @change="(percent) => bench.slide(edit({ x: percent / 100 }))"
    />
    <SliderRow
      label="Down"
      :value="shape.y * 100"
      :max="100"
      @move="(percent) => bench.drag(edit({ y: percent / 100 }))"
      @change="(percent) => bench.slide(edit({ y: percent / 100 }))"
    />
  </div>
</template>
