import type { Brought } from '../api/client'

/** What became of a file of everything, for who brought it. */
export const broughtWords = ({ projects, parts, drawer, there }: Brought): string => {
  const came = [
    projects.length > 0 && `projects: ${projects.join(', ')}`,
    parts.length > 0 && `parts: ${parts.join(', ')}`,
    drawer > 0 && `${drawer} ${drawer === 1 ? 'line' : 'lines'} of the drawer`,
  ].filter(Boolean)
  return `${came.length > 0 ? `Brought ${came.join('; ')}.` : 'Nothing new was in it.'}${there > 0 ? ` ${there} ${there === 1 ? 'was' : 'were'} there already.` : ''}`
}
