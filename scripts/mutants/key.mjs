import { isAbsolute, relative } from 'node:path'

/** The same mutant has the same key in every run: its file, its place (lines and columns from 0), its text. */
export const keyOf = ({ fileName, location: { start, end }, replacement }) => {
  const file = isAbsolute(fileName)
    ? fileName.slice(fileName.search(/(core|server|web)\/src\//))
    : relative('.', fileName)
  return `${file}:${start.line}:${start.column}-${end.line}:${end.column} ${replacement}`
}
