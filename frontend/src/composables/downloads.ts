/** Have the browser save what an address answers with, under a name. */
export function downloadFrom(address: string, name: string): void {
  const link = document.createElement('a')
  link.href = address
  link.download = name
  link.click()
}
