/** Folders of npm packages that are the simulated supplier's stock: the library does not count them in. */
export const supplierFolders: ReadonlySet<string> = new Set(['vollkorn', 'karla', 'gelasio', 'arvo'])
