// Choices that exclude each other are one stop for the Tab key: `v-radios` on the element round the
// `role="radio"` buttons lets the arrow keys walk among them. Walking only shows a choice, as
// hovering does; Space or Enter takes it.

import type { Directive } from 'vue'
import { arrowWay } from './keyNames'

export const vRadios: Directive<HTMLElement> = {
  mounted(group) {
    group.addEventListener('keydown', (event) => walk(group, event))
    group.addEventListener('focusin', ({ target }) => makeOnlyStop(group, target as HTMLElement))
    group.addEventListener('focusout', () => settle(group))
    settle(group)
  },
  updated: settle,
}

function radiosOf(group: HTMLElement): HTMLElement[] {
  return [...group.querySelectorAll<HTMLElement>('[role=radio]:not(:disabled)')]
}

/** The chosen one can be reached by Tab; the first where none is chosen. */
function settle(group: HTMLElement): void {
  const radios = radiosOf(group)
  const focused = radios.find((radio) => radio === document.activeElement)
  const chosen = radios.find((radio) => radio.getAttribute('aria-checked') === 'true')
  makeOnlyStop(group, focused ?? chosen ?? radios[0])
}

function makeOnlyStop(group: HTMLElement, stop: HTMLElement | undefined): void {
  const radios = radiosOf(group)
  if (!stop || !radios.includes(stop)) return
  for (const radio of radios) radio.tabIndex = radio === stop ? 0 : -1
}

function walk(group: HTMLElement, event: KeyboardEvent): void {
  const way = arrowWay(event)
  const radios = radiosOf(group)
  const from = radios.indexOf(event.target as HTMLElement)
  if (!way || from < 0) return
  event.preventDefault()
  event.stopPropagation()
  const [across, down] = way.map(Math.sign) as [number, number]
  const beneath = down ? nearestInNextRow(radios, radios[from]!, down) : null
  const next = beneath ?? radios[(from + across + down + radios.length) % radios.length]!
  next.focus()
}

/** The radio above or below that is nearest; null where there is no such row. */
function nearestInNextRow(radios: HTMLElement[], from: HTMLElement, down: number): HTMLElement | null {
  const { left, top } = from.getBoundingClientRect()
  const boxes = radios.map((radio) => ({ radio, box: radio.getBoundingClientRect() }))
  const beyond = boxes.filter(({ box }) => down * (box.top - top) > box.height / 2)
  const distance = (box: DOMRect) => down * (box.top - top) * 1000 + Math.abs(box.left - left)
  beyond.sort((one, other) => distance(one.box) - distance(other.box))
  return beyond[0]?.radio ?? null
}
