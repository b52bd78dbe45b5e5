// What of the page is cut, sticks out or overlaps, as sentences; none when all is well.
() => {
  const faults = []
  const SLACK = 1.5
  const name = (element) => {
    const words = element.getAttribute('aria-label') || element.textContent.trim().slice(0, 30)
    return `${element.tagName.toLowerCase()}.${element.className?.baseVal ?? element.className} “${words}”`
  }
  const style = (element) => getComputedStyle(element)
  const isShown = (element) => {
    const box = element.getBoundingClientRect()
    return box.width > 1 && box.height > 1 && element.checkVisibility({ opacityProperty: true, visibilityProperty: true })
  }
  const scrolls = (element, way) => ['auto', 'scroll'].includes(style(element)[`overflow${way}`])
  const clips = (element) => style(element).overflowX !== 'visible'

  /** The boxes of an element's own text. */
  function textBoxes(element) {
    const texts = [...element.childNodes].filter((node) => node.nodeType === 3 && node.textContent.trim())
    return texts.map((node) => {
      const range = document.createRange()
      range.selectNodeContents(node)
      return range.getBoundingClientRect()
    })
  }

  /** The part of an element that shows, given all that clips it; and whether one of these scrolls. */
  function shownPart(element) {
    const box = element.getBoundingClientRect()
    const part = { left: box.left, top: box.top, right: box.right, bottom: box.bottom, scrolls: { X: false, Y: false } }
    for (let around = element.parentElement; around; around = around.parentElement) {
      part.scrolls.X ||= scrolls(around, 'X')
      part.scrolls.Y ||= scrolls(around, 'Y')
      if (clips(around)) {
        const frame = around.getBoundingClientRect()
        part.left = Math.max(part.left, frame.left)
        part.top = Math.max(part.top, frame.top)
        part.right = Math.min(part.right, frame.right)
        part.bottom = Math.min(part.bottom, frame.bottom)
      }
      if (style(around).position === 'fixed') break
    }
    part.left = Math.max(part.left, 0)
    part.top = Math.max(part.top, 0)
    part.right = Math.min(part.right, innerWidth)
    part.bottom = Math.min(part.bottom, innerHeight)
    return part
  }

  const dialog = [...document.querySelectorAll('[role=dialog]')].find(isShown)
  const root = dialog ?? document.body
  const ignored = '.stage, .visually-hidden, .control-tips, script, style, svg *'
  const all = [...root.querySelectorAll('*')].filter((element) => !element.closest(ignored) && isShown(element))
  const controls = all.filter((element) =>
    element.matches('button, a[href], input, select, textarea, [role=slider], [role=switch]'),
  )

  for (const element of controls) {
    const box = element.getBoundingClientRect()
    const part = shownPart(element)
    if (!part.scrolls.X && (part.right < box.right - SLACK || part.left > box.left + SLACK)) faults.push(`cut at a side: ${name(element)}`)
    if (!part.scrolls.Y && (part.bottom < box.bottom - SLACK || part.top > box.top + SLACK)) faults.push(`cut above or below: ${name(element)}`)
  }
  for (const element of all) {
    const { overflowX, textOverflow } = style(element)
    // What is shown as wide as people see it may be wider than there is room for.
    if (overflowX === 'auto' && !element.matches('.seen') && element.scrollWidth > element.clientWidth + 1) faults.push(`scrolls sideways: ${name(element)}`)
    if (textOverflow === 'ellipsis' || element.matches('textarea, option, optgroup')) continue
    const part = shownPart(element)
    const box = element.getBoundingClientRect()
    for (const text of textBoxes(element)) {
      if (!part.scrolls.X && text.right > part.right + SLACK) faults.push(`text is cut: ${name(element)}`)
      if (style(element).display !== 'inline' && text.right > box.right + SLACK) faults.push(`text runs out of: ${name(element)}`)
    }
  }
  const boxes = controls
    .filter((element) => !element.matches('.el-switch__input'))
    .map((element) => ({ element, part: shownPart(element) }))
    .filter(({ part }) => part.right - part.left > 1 && part.bottom - part.top > 1)
  boxes.forEach(({ element, part }, index) => {
    for (const { element: other, part: otherPart } of boxes.slice(index + 1)) {
      if (element.contains(other) || other.contains(element)) continue
      if (element.closest('label') && element.closest('label') === other.closest('label')) continue
      const across = Math.min(part.right, otherPart.right) - Math.max(part.left, otherPart.left)
      const down = Math.min(part.bottom, otherPart.bottom) - Math.max(part.top, otherPart.top)
      if (across > 2 && down > 2) faults.push(`overlap: ${name(element)} and ${name(other)}`)
    }
  })
  const bar = document.querySelector('header.top').getBoundingClientRect()
  const below = document.querySelector('.columns, .sheet-page > main').getBoundingClientRect()
  if (Math.abs(below.top - bar.bottom) > 1) faults.push(`${below.top - bar.bottom} px between the bar and what is below it`)
  if (document.documentElement.scrollWidth > innerWidth) faults.push('the page is wider than the window')
  return [...new Set(faults)]
}
