// The one-line explanations of controls. Each is found by the words on the control, in the step and
// the fold that it stands in; `explanations.json` holds them all, and the manual is made from it.

import { computed, inject, provide, type ComputedRef, type Directive, type InjectionKey } from 'vue'

import texts from '../explanations.json'
import { shownKeys } from './keyNames'

interface Texts {
  [label: string]: string | Texts
}

export interface Explained {
  text: string
  /** The key that does the same. */
  key?: string
}

/** The texts of the places that a control stands in, the nearest first. */
const PLACES: InjectionKey<Texts[]> = Symbol('explanations')

/** Controls below are explained by the texts of a step, or of a fold in it. */
export function explainWithin(title: string): void {
  const around = inject(PLACES, [texts as Texts])
  const own = around.map((place) => place[title]).find((place) => typeof place === 'object')
  provide(PLACES, own ? [own as Texts, ...around] : around)
}

/** What explains the controls here by their labels; undefined where nothing needs to be said. */
export function useTips(): (label: string) => Explained | undefined {
  const places = inject(PLACES, [texts as Texts])
  return (label) => places.map((place) => explained(place[label])).find((found) => found)
}

/** The same for one control, whose label may change. */
export function useExplained(label: () => string): ComputedRef<Explained | undefined> {
  const tip = useTips()
  return computed(() => tip(label()))
}

/** What explains the choices of a group. */
export function useExplainedIn(group: () => string): (label: string) => Explained | undefined {
  const places = inject(PLACES, [texts as Texts])
  return (label) => {
    const choices = places.map((place) => place[group()]).find((place) => typeof place === 'object')
    return explained((choices as Texts | undefined)?.[label])
  }
}

/** What explains a control of the stage and of the bars, which have the same words everywhere. */
export function explain(label: keyof typeof texts.View): Explained {
  return explained(texts.View[label])!
}

function explained(found: string | Texts | undefined): Explained | undefined {
  if (typeof found === 'string') return { text: found }
  const { '': text, key } = found ?? {}
  return typeof text === 'string' ? { text, key: typeof key === 'string' ? key : undefined } : undefined
}

/** Shows the explanation on hover and on keyboard focus, and tells it to screen readers. */
export const vTip: Directive<HTMLElement, Explained | undefined> = {
  mounted: (element, { value }) => tell(element, value),
  updated: (element, { value }) => tell(element, value),
}

function tell(element: HTMLElement, tip: Explained | undefined): void {
  const control = element.querySelector('[role=slider], input') ?? element
  if (!tip) {
    delete element.dataset.tip
    control.removeAttribute('aria-description')
    return
  }
  element.dataset.tip = tip.key ? `${tip.text} (${shownKeys(tip.key)})` : tip.text
  control.setAttribute('aria-description', tip.text)
}
