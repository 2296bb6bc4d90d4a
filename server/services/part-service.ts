import { counted } from '../../core/text/display'
import type { Mass } from '../../core/model/ledger'
import { partOfRow, type Kit, type Part, type PartRow } from '../../core/parts/drawer'
import { drawerHolds, type DrawerReply } from '../../shared/schemas/drawer'
import type { PartsRepository } from '../db/parts-repository'
import type { GroupCommit } from '../db/group-commit'
import type { BuildService, Writing } from './build-service'
import { DomainProblem } from '../problems'

interface Dependencies {
  parts: PartsRepository
  builds: BuildService
  writer: GroupCommit
  now: () => string
}

/** The use cases of the drawer. Lines that are still simply their part follow its grams and properties. */
export function partService({ parts, builds, writer, now }: Dependencies) {
  function keepAll(writing: Writing, wanted: readonly Part[], came: string): number {
    const known = parts.known(wanted.map(part => part.id))
    const at = now()
    for (const part of wanted) {
      const before = known.has(part.id) ? parts.one(part.id) : null
      if (!before) {
        parts.insert(part, at, part.mass?.origin || came)
        continue
      }
      parts.change(part, at, part.mass?.origin || came)
      builds.followPart(writing, before, part)
    }
    return wanted.length
  }
  function requireRoom(more: number): void {
    if (parts.count() + more > drawerHolds)
      throw new DomainProblem('refused', `A drawer holds at most ${counted(drawerHolds)} parts.`)
  }

  function insertRows(rows: readonly PartRow[]): number {
    requireRoom(rows.length)
    const at = now()
    try {
      for (const row of rows) parts.insert(partOfRow(row), at, 'drawer list')
    } catch (error) {
      if (parts.known(rows.map(row => row.id)).size > 0)
        throw new DomainProblem('refused', 'One of these rows is in the drawer already. None of them was taken.')
      throw error
    }
    return rows.length
  }
  /** Where pieces of a part are: a part that lines still name stays. */
  function takeOut(id: string): readonly { madeAt: string; came: string; mass: unknown }[] {
    const on = [
      ...new Set(
        builds
          .placements()
          .filter(p => p.partId === id)
          .map(p => p.buildName),
      ),
    ]
    if (on.length > 0)
      throw new DomainProblem(
        'refused',
        `“${parts.one(id)?.name ?? 'This part'}” is on ${on.join(' and ')}. Take it off there first.`,
      )
    const versions = parts.one(id) ? parts.versions(id) : []
    if (!parts.remove(id)) throw new DomainProblem('not-found', 'There is no such part in the drawer.')
    return versions
  }
  function takeOutKit(id: string): readonly string[] {
    const pieces = parts
      .all()
      .filter(part => part.kitId === id)
      .map(part => part.id)
    if (!parts.removeKit(id)) throw new DomainProblem('not-found', 'There is no such kit.')
    return pieces
  }

  return {
    one: (id: string) => parts.one(id),
    kit: (id: string) => parts.kits().find(kit => kit.id === id) ?? null,
    /** Inside a transaction: puts one part in or changes it. */
    keepOne(writing: Writing, part: Part) {
      if (!parts.one(part.id)) requireRoom(1)
      if (part.kitId !== null && !parts.kits().some(kit => kit.id === part.kitId))
        throw new DomainProblem('refused', `The kit that “${part.name}” came from is not here.`, 'kitId')
      keepAll(writing, [part], 'typed')
    },
    keepKit: (kit: Kit) => {
      parts.putKit(kit)
    },
    takeOut,
    takeOutKit,
    /** The history of a part that is brought back. */
    restoreVersions(id: string, rest: unknown) {
      for (const { madeAt, came, mass } of rest as readonly { madeAt: string; came: string; mass: Mass }[]) {
        if (mass.versionId === parts.one(id)?.mass?.versionId) parts.dateMass(id, madeAt, came)
        else parts.addVersion(id, mass, madeAt, came)
      }
    },
    /** The pieces of a kit that is brought back. */
    restoreKit(writing: Writing, id: string, rest: unknown) {
      for (const pieceId of rest as readonly string[]) {
        const part = parts.one(pieceId)
        if (part?.kitId === null) keepAll(writing, [{ ...part, kitId: id }], 'typed')
      }
    },
    all: (): DrawerReply => ({ parts: parts.all(), kits: parts.kits(), placements: builds.placements() }),
    /** Puts parts in or changes them: all or none. */
    put: (wanted: readonly Part[]) =>
      builds.changeAnywhere(writing => {
        requireRoom(wanted.length)
        return keepAll(writing, wanted, 'typed')
      }),
    /** Puts in the rows of a list, each as a part of its own. */
    bringIn: (rows: readonly PartRow[]) => writer.write(() => insertRows(rows)),
    insertRows,
    /** Parts that lines still name stay. */
    remove: (ids: readonly string[]) =>
      writer.write(() => {
        for (const id of ids) takeOut(id)
        return ids.length
      }),
    /** One purchase with the pieces it became. */
    putKit: (kit: Kit, pieces: readonly Part[]) =>
      builds.changeAnywhere(writing => {
        parts.putKit(kit)
        return keepAll(
          writing,
          pieces.map(part => ({ ...part, kitId: kit.id })),
          `from ${kit.name}`,
        )
      }),
    /** The pieces stay; they only no longer say where they came from. */
    removeKit: (id: string) =>
      writer.write(() => {
        takeOutKit(id)
      }),
    history(id: string) {
      if (!parts.one(id)) throw new DomainProblem('not-found', 'There is no such part in the drawer.')
      return parts.versions(id)
    },
    mapping: (heads: string) => parts.mapping(heads),
    putMapping: (heads: string, mapping: Record<string, string>) =>
      writer.write(() => parts.putMapping(heads, mapping)),
  }
}
export type PartService = ReturnType<typeof partService>
