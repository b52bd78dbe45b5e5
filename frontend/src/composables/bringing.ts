// Bringing photos in from anywhere: one photo opens on the bench, several stay on the shelf.

import { useRouter } from 'vue-router'

import { useBench } from '../stores/bench'
import { useShelf } from '../stores/shelf'

export function useBringing() {
  const router = useRouter()
  const shelf = useShelf()
  const bench = useBench()

  async function bring(files: File[]): Promise<void> {
    if (!files.length) return
    if (bench.saved) await bench.settle()
    const started = await shelf.bring(files)
    if (!started.length) return // all were refused; stay where the user is
    if (files.length === 1) {
      await router.push({ name: 'bench', params: { id: started[0] } })
    } else {
      shelf.chosenFinishes = started // so that they can be looked at together
      await router.push({ name: 'shelf' })
      await shelf.load()
    }
  }

  return { bring }
}
