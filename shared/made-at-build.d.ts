/** The changes of the database’s schema, as the build puts them together. */
declare module '#migrations' {
  const migrations: readonly { readonly name: string; readonly sql: string }[]
  export default migrations
}

/** The files of the shelf's page, beneath the folder of the built scripts. */
declare module '#shelf-files' {
  const files: readonly string[]
  export default files
}
