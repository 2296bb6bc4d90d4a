/** The list of plug names that fields for plugs offer while one types; it stands once in the application. */
export const plugNamesId = 'plug-names'
