import { computed, type ComputedRef } from 'vue'

import { useBench } from '../stores/bench'
import { useStage } from '../stores/stage'

/**
 * The SVG transform from output pixels to CSS pixels of the stage. While cropping, the stage
 * shows the whole photo and the output lies in its window.
 */
export function useOutputSpace(origin: () => { x: number; y: number }): ComputedRef<string> {
  const bench = useBench()
  const stage = useStage()

  return computed(() => {
    const { sampled, photo_box: box } = bench.shownLayout!
    const { x, y } = origin()
    if (!stage.isCropping) return `translate(${x} ${y}) scale(${stage.zoom})`
    const scale = (stage.zoom * sampled.width) / box.width
    const left = x + sampled.left * stage.zoom - box.left * scale
    const top = y + sampled.top * stage.zoom - box.top * scale
    return `translate(${left} ${top}) scale(${scale})`
  })
}
