const DAY_MS = 86_400_000

/** A stored moment as people say it: "today 14:05", "Friday", "3 March". */
export function sayWhen(stored: string, now = new Date()): string {
  const then = new Date(stored)
  const days = Math.round((midnight(now) - midnight(then)) / DAY_MS)
  if (days === 0) {
    return `today ${then.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`
  }
  if (days === 1) return 'yesterday'
  if (days < 7) return then.toLocaleDateString('en-GB', { weekday: 'long' })
  const year = then.getFullYear() === now.getFullYear() ? undefined : 'numeric'
  return then.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year })
}

function midnight(date: Date): number {
  return new Date(date.getFullYear(), date.getMonth(), date.getDate()).getTime()
}
