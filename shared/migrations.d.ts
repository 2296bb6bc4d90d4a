/** The changes of the database’s schema, as the build puts them together. */
declare module '#migrations' {
  const migrations: readonly { readonly name: string; readonly sql: string }[]
  export default migrations
}
