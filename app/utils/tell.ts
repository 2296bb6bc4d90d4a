import type { TellAction } from './show-message'

/** Closes the last message that offers to take something back. */
let close: (() => void) | null = null

/**
 * Tells in a short message what was done elsewhere than where the builder looks, with a way back where there is one.
 * It goes by itself; while it is pointed at it stays. The component comes with the first message.
 */
export async function tell(words: string, action?: TellAction): Promise<void> {
  try {
    const { showMessage } = await import('./show-message')
    const closeThis = showMessage(words, action)
    if (action) close = closeThis
  } catch {
    // Without the server the component may not come; what was done is done all the same.
  }
}

/** Something else is being changed: “Take back” would now take that back, so it is offered no longer. */
export function forgetTold(): void {
  close?.()
  close = null
}
