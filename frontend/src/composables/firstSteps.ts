// Three things to do with the sample photo, for a first look.

import { useRouter } from 'vue-router'

import sample from '../assets/sample.jpg'

import { useBench } from '../stores/bench'
import { useFinding } from '../stores/finding'
import { useNotices } from '../stores/notices'
import { useSelection } from '../stores/selection'
import { useShelf } from '../stores/shelf'
import { usePieceEdits } from './pieceEdits'

export { sample as SAMPLE }
const SAMPLE_NAME = 'Three mugs.jpg'

export const FIRST_STEPS = [
  { key: 'crop', title: 'Crop it for a post', text: 'choose a size, drag the window, save the file' },
  { key: 'cut_out', title: 'Cut a mug out', text: 'put it on another background, with an outline' },
  { key: 'pieces', title: 'Write a headline', text: 'type on the picture itself' },
] as const

export type FirstStep = (typeof FIRST_STEPS)[number]['key']

export function useFirstSteps() {
  const router = useRouter()
  const bench = useBench()
  const finding = useFinding()
  const notices = useNotices()
  const selection = useSelection()
  const shelf = useShelf()
  const pieces = usePieceEdits()

  /** Open the sample photo on the bench to do this with it. */
  async function start(step: FirstStep): Promise<void> {
    try {
      const blob = await (await fetch(sample)).blob()
      const [id] = await shelf.bring([new File([blob], SAMPLE_NAME, { type: blob.type })])
      if (id) await router.push({ name: 'bench', params: { id }, query: { first: step } })
    } catch (error) {
      notices.tell(error)
    }
  }

  /** What the bench does first when it was opened for one of these. */
  async function begin(step: unknown): Promise<void> {
    if (!FIRST_STEPS.some(({ key }) => key === step)) return
    bench.openStep = step as FirstStep
    if (step === 'cut_out') await finding.find()
    if (step === 'pieces') {
      await pieces.add({ kind: 'add_text', purpose: 'headline', text: '', palette: [] })
      if (selection.only) selection.write(selection.only.id)
    }
  }

  return { start, begin }
}
