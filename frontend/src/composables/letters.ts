// Where the letters of a text lie on the picture, as the service laid them out: the caret's places,
// the boxes of what is marked, and the way from one line to the next. Places in the text are counted
// in UTF-16 units here, as fields count them.

import { computed, ref, shallowRef, watch } from 'vue'

import type { TextPiece, Writing } from '../api/types'
import { useBench } from '../stores/bench'
import { useNotices } from '../stores/notices'
import { useLatest } from './latest'

/** A line across a line of text: x and y of its upper and of its lower end, in output pixels. */
export type Edge = [number, number, number, number]

interface Stop {
  at: number
  line: number
  edge: Edge
}

export function useLetters(piece: () => TextPiece) {
  const bench = useBench()
  const notices = useNotices()
  const writing = shallowRef<Writing | null>(null)
  /** The text that the letters are of, which may lag a little behind what is typed. */
  const laidText = ref<string | null>(null)
  /** UTF-16 offsets by its characters. */
  const offsets = shallowRef<number[]>([0])

  const latest = useLatest<string>(async (text) => {
    try {
      const found = await bench.ask<Writing>('/bench/writing', { piece: piece().id })
      writing.value = found
      offsets.value = offsetsOf(text)
      laidText.value = text
    } catch (error) {
      notices.tell(error)
    }
  })
  watch(
    () => [bench.draft?.draft, bench.sizeId, bench.shownLayout] as const,
    () => {
      if (bench.here?.pieces.some(({ id }) => id === piece().id)) latest.ask(piece().text)
    },
    { immediate: true },
  )

  const letters = computed(() =>
    (writing.value?.letters ?? []).map((letter) => ({
      ...letter,
      start: offsets.value[letter.start]!,
      end: offsets.value[letter.end]!,
    })),
  )
  /** Everywhere the caret may stand, in the order of typing. */
  const stops = computed<Stop[]>(() => {
    const before = letters.value.map(({ start, line, leading }) => ({ at: start, line, edge: leading as Edge }))
    const ends = (writing.value?.ends ?? []).map(({ at, line, edge }) => ({
      at: offsets.value[at]!,
      line,
      edge: edge as Edge,
    }))
    return [...before, ...ends].sort((one, other) => one.at - other.at || other.line - one.line)
  })

  /** The stop at a place of the text, or the last one before it. */
  function stopAt(at: number): Stop | undefined {
    return stops.value.find((stop) => stop.at === at) ?? stops.value.findLast((stop) => stop.at <= at)
  }

  function nearest(x: number, y: number, among = stops.value): Stop | undefined {
    const distance = ({ edge }: Stop) => distanceTo(edge, x, y)
    return [...among].sort((one, other) => distance(one) - distance(other))[0]
  }

  /** The stop one line further up or down, as near as can be; undefined where there is no line. */
  function beside(at: number, lines: number): Stop | undefined {
    const from = stopAt(at)
    if (!from) return undefined
    const line = stops.value.filter((stop) => stop.line === from.line + lines)
    const [x0, y0, x1, y1] = from.edge
    return nearest((x0 + x1) / 2, (y0 + y1) / 2, line)
  }

  /** The first and the last stop of the line at a place of the text. */
  function lineAround(at: number): [Stop, Stop] | undefined {
    const from = stopAt(at)
    const line = stops.value.filter((stop) => stop.line === from?.line)
    return line.length ? [line[0]!, line.at(-1)!] : undefined
  }

  /** The letters from one place up to another, each as the four corners of its box. */
  function boxes(start: number, end: number): string[] {
    return letters.value
      .filter((letter) => letter.start < end && letter.end > start)
      .map(({ leading: [ax, ay, bx, by], trailing: [cx, cy, dx, dy] }) => `${ax},${ay} ${cx},${cy} ${dx},${dy} ${bx},${by}`)
  }

  return { laidText, stopAt, nearest, beside, lineAround, boxes }
}

function offsetsOf(text: string): number[] {
  const offsets = [0]
  for (const character of text) offsets.push(offsets.at(-1)! + character.length)
  return offsets
}

function distanceTo([x0, y0, x1, y1]: Edge, x: number, y: number): number {
  const [dx, dy] = [x1 - x0, y1 - y0]
  const along = Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy || 1)))
  return Math.hypot(x - x0 - along * dx, y - y0 - along * dy)
}
