// Numbers as people type them: comma or point, a unit, small sums ("1080/2").

export interface Units {
  /** What a bare number counts in. */
  unit: 'px' | '%' | 'KB' | 'mm' | 's' | '°' | 'K' | ''
  /** How many of `unit` one percent is, where percent may be typed too. */
  percent?: number
  /** How many of `unit` one pixel is, where pixels may be typed too. */
  pixel?: number
}

/** Two numbers with a colon, a slash or an x between, each with a comma or a point. */
const RATIO = /^\s*(\d+(?:[.,]\d+)?)\s*[:/x×]\s*(\d+(?:[.,]\d+)?)\s*$/i
const TERM = /\s*(\d+(?:[.,]\d*)?|[.,]\d+)\s*(px|%|kb|°|k)?\s*/iy

/** The number in `units.unit`, or null when the text is no number or sum. */
export function parseNumber(text: string, units: Units): number | null {
  const reader = new Reader(text.trim(), units)
  const value = reader.sum()
  return value !== null && reader.atEnd && Number.isFinite(value) ? value : null
}

/** A ratio such as "7:9.5", or null. */
export function readRatio(text: string): { width: number; height: number } | null {
  const [width, height] = (RATIO.exec(text) ?? []).slice(1).map((part) => Number(part.replace(',', '.')))
  return width && height ? { width, height } : null
}

class Reader {
  private place = 0

  constructor(
    private readonly text: string,
    private readonly units: Units,
  ) {}

  get atEnd(): boolean {
    return this.place >= this.text.length
  }

  sum(): number | null {
    let total = this.product()
    while (total !== null && !this.atEnd && '+-−'.includes(this.text[this.place]!)) {
      const sign = this.text[this.place++] === '+' ? 1 : -1
      const next = this.product()
      total = next === null ? null : total + sign * next
    }
    return total
  }

  private product(): number | null {
    let total = this.term()
    while (total !== null && !this.atEnd && '*×/'.includes(this.text[this.place]!)) {
      const divides = this.text[this.place++] === '/'
      const next = this.term()
      total = next === null ? null : divides ? total / next : total * next
    }
    return total
  }

  private term(): number | null {
    while (this.text[this.place] === ' ') this.place += 1
    if ('-−'.includes(this.text[this.place] ?? ' ')) {
      this.place += 1
      const value = this.term()
      return value === null ? null : -value
    }
    TERM.lastIndex = this.place
    const match = TERM.exec(this.text)
    if (!match) return null
    this.place = TERM.lastIndex
    const value = Number(match[1]!.replace(',', '.'))
    const factor = this.factor(match[2]?.toLowerCase())
    return factor === undefined ? null : value * factor
  }

  private factor(unit: string | undefined): number | undefined {
    if (!unit || unit === this.units.unit.toLowerCase()) return 1
    if (unit === '%') return this.units.percent
    if (unit === 'px') return this.units.pixel
    return undefined
  }
}

/** A number for a field: at most `digits` after the point, no trailing zeros. */
export function formatNumber(value: number, digits = 1): string {
  return String(Number(value.toFixed(digits)))
}

/** A file's weight as people compare it with a cap (1 KB = 1000 bytes). */
export function formatWeight(bytes: number): string {
  if (bytes < 1000) return `${bytes} bytes`
  if (bytes < 999_500) return `${formatNumber(bytes / 1000, bytes < 9950 ? 1 : 0)} KB`
  return `${formatNumber(bytes / 1_000_000, 2)} MB`
}

/** How many there are of what: "1 finish", "3 finishes". */
export function counted(count: number, one: string, several: string): string {
  return `${formatNumber(count)} ${count === 1 ? one : several}`
}
