import { computed } from 'vue'

import { useBench } from '../stores/bench'
import { useStage } from '../stores/stage'

/**
 * From output pixels to CSS pixels of the stage: as numbers and as an SVG transform. While
 * cropping, the stage shows the whole turned photo and the output lies in its window.
 */
export function useOutputSpace(origin: () => { x: number; y: number }) {
  const bench = useBench()
  const stage = useStage()

  const placed = computed(() => {
    const { sampled, shown } = bench.shownLayout!
    const { x, y } = origin()
    if (!stage.isCropping) return { left: x, top: y, scale: stage.zoom }
    const scale = (stage.zoom * sampled.width) / shown.width
    return {
      left: x + sampled.left * stage.zoom - shown.left * scale,
      top: y + sampled.top * stage.zoom - shown.top * scale,
      scale,
    }
  })
  const transform = computed(
    () => `translate(${placed.value.left} ${placed.value.top}) scale(${placed.value.scale})`,
  )

  function at(x: number, y: number): { left: string; top: string } {
    const { left, top, scale } = placed.value
    return { left: `${left + x * scale}px`, top: `${top + y * scale}px` }
  }

  return { placed, transform, at }
}
