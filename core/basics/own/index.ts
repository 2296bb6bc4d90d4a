/**
 * The entry of a table that carries this name itself; undefined where there is none. What every object inherits
 * (“constructor”, “toString”) is never found, so the name may come from a file or a key somebody typed.
 */
export function ownEntry<T>(table: Readonly<Record<string, T>>, name: string): T | undefined {
  return Object.hasOwn(table, name) ? table[name] : undefined
}
