/** A command that cannot be carried out; the sentence is for the builder, the field says where to point. */
export class CommandRefused extends Error {
  readonly field: string
  constructor(sentence: string, field: string) {
    super(sentence)
    this.name = 'CommandRefused'
    this.field = field
  }
}
