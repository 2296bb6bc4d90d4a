import { z } from 'zod'

export const passphraseSchema = z.strictObject({
  passphrase: z.string({ error: 'A passphrase is text.' }).max(200, 'A passphrase has at most 200 characters.'),
})
export const passphraseReplySchema = z.strictObject({ passphraseSet: z.boolean() })

export const networkReplySchema = z.strictObject({
  on: z.boolean(),
  passphraseSet: z.boolean(),
  fromEnvironment: z.boolean(),
  /** Whether this was asked at the machine itself, and whether the passphrase should be set anew. */
  atTheMachine: z.boolean(),
  shouldRenew: z.boolean(),
  addresses: z.array(z.strictObject({ address: z.string(), code: z.string() })),
})
export type NetworkReply = z.infer<typeof networkReplySchema>
