/** Hands a text out as a file. */
export function download(file: { name: string; text: string }) {
  downloadBlob(new Blob([file.text], { type: 'text/plain' }), file.name)
}

/** Hands bytes out as a file. */
export function downloadBlob(bytes: Blob, name: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(bytes)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 1000)
}
