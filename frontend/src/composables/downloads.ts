/** Have the browser save bytes under a name. */
export function downloadBlob(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob)
  downloadFrom(url, name)
  URL.revokeObjectURL(url)
}

/** Have the browser save what an address answers with, under a name. */
export function downloadFrom(address: string, name: string): void {
  const link = document.createElement('a')
  link.href = address
  link.download = name
  link.click()
}
