/** Hands a text out as a file. */
export function download(file: { name: string; text: string }) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([file.text], { type: 'text/plain' }))
  link.download = file.name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 1000)
}
