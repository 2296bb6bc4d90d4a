import { longestLine } from './parse-line'

/** Cuts a stream of characters into lines; what is longer than any reading is thrown away, and counted, as it comes. */
export class LineSplitter {
  private rest = ''
  private skipping = false
  /** Lines thrown away for their length. */
  tooLong = 0

  /** The whole lines in what has come so far; the memory held is never more than one line. */
  push(chunk: string): string[] {
    const lines: string[] = []
    let from = 0
    while (from < chunk.length) {
      const end = nextBreak(chunk, from)
      const piece = chunk.slice(from, end < 0 ? Math.min(chunk.length, from + longestLine + 1) : end)
      if (!this.skipping) this.rest += piece
      if (this.rest.length > longestLine) {
        this.rest = ''
        this.skipping = true
        this.tooLong++
      }
      if (end < 0) return lines
      if (!this.skipping && this.rest.trim() !== '') lines.push(this.rest)
      this.rest = ''
      this.skipping = false
      from = end + 1
    }
    return lines
  }
}

function nextBreak(text: string, from: number): number {
  for (let i = from; i < text.length; i++) {
    const code = text.charCodeAt(i)
    if (code === 10 || code === 13) return i
  }
  return -1
}
