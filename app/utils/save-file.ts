/** Gives the builder a file to keep. */
export function saveFile(name: string, content: Blob | string, type = 'text/plain'): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(typeof content === 'string' ? new Blob([content], { type }) : content)
  link.download = name
  link.click()
  URL.revokeObjectURL(link.href)
}
