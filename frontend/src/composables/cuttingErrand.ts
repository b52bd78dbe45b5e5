// A piece's picture is cut out on a bench of its own; from there its subject goes into the piece.

import { until } from '@vueuse/core'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

import { get, post } from '../api/client'
import type { FinishState, Photo, PicturePiece } from '../api/types'
import { useBench } from '../stores/bench'
import { useCutOut } from '../stores/cutOut'
import { useFinding } from '../stores/finding'
import { useNotices } from '../stores/notices'
import { useSelection } from '../stores/selection'
import { useSubjects } from '../stores/subjects'

/** How long the finish may take to come; if it is gone, that is said where it is loaded. */
const LOAD_MS = 30_000

export function useCuttingErrand() {
  const bench = useBench()
  const cutOut = useCutOut()
  const finding = useFinding()
  const notices = useNotices()
  const selection = useSelection()
  const subjects = useSubjects()
  const route = useRoute()
  const router = useRouter()

  /** The finish and the piece that wait for the subject. */
  const errand = computed(() => {
    const { for: finish, piece } = route.query
    return typeof finish === 'string' && typeof piece === 'string' ? { finish, piece } : null
  })

  /** Go and cut a piece's picture out, or mend what was cut out of it. */
  async function begin(piece: PicturePiece): Promise<void> {
    const finish = bench.saved!.id
    try {
      await bench.settle()
      const photo = await get<Photo>(`/photos/${piece.sha256}`)
      const name = piece.subject?.name ?? photo.name.replace(/\.[^.]+$/, '')
      const wanted = { photo: photo.sha256, name, ...(piece.subject && { cut_out: piece.subject.cut_out, square: piece.subject.square }) }
      const { id } = await post<FinishState>('/finishes', wanted)
      await router.push({ name: 'bench', params: { id }, query: { for: finish, piece: piece.id } })
    } catch (error) {
      notices.tell(error)
    }
  }

  /** What the bench of the errand opens with. */
  function open(): void {
    bench.openStep = 'cut_out'
    if (!cutOut.isOn) void finding.find()
  }

  /** Keep the subject on the shelf, and show only that in the piece. */
  async function putIn(): Promise<void> {
    const { finish, piece } = errand.value!
    const made = await subjects.keep(bench.document!.name)
    if (!made) return
    await goBack()
    const isBack = () => bench.saved?.id === finish && !!bench.here
    await until(isBack).toBe(true, { timeout: LOAD_MS })
    if (!isBack()) return
    bench.openStep = 'pieces'
    await bench.edit({ kind: 'set_piece_subject', id: piece, subject: made.subject })
    selection.choose([piece])
  }

  /** Back to the finish; the one in which the photo was cut out goes into the bin. */
  async function goBack(): Promise<void> {
    const { finish } = errand.value!
    const { id } = bench.saved!
    try {
      await bench.settle()
      await router.push({ name: 'bench', params: { id: finish } })
      await post(`/finishes/${id}/bin`)
    } catch (error) {
      notices.tell(error)
    }
  }

  return { errand, begin, open, putIn, goBack }
}
