import type { TellAction } from './show-message'

/**
 * Tells in a short message what was done elsewhere than where the builder looks, with a way back where there is one.
 * It goes by itself; while it is pointed at it stays. The component comes with the first message.
 */
export async function tell(words: string, action?: TellAction): Promise<void> {
  try {
    const { showMessage } = await import('./show-message')
    showMessage(words, action)
  } catch {
    // Without the server the component may not come; what was done is done all the same.
  }
}
