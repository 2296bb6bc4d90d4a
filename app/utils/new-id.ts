import { nanoid } from 'nanoid'

/** A short id for a new line, part or mass version. Made without anything a browser keeps from plain http. */
export function newId(): string {
  return nanoid(16)
}
