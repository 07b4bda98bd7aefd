import type { Brought } from '../api/client'

/** What became of a file of everything, for who brought it. */
export const broughtWords = ({ projects, parts, drawer, there, damaged }: Brought): string => {
  const came = [
    projects.length > 0 && `projects: ${projects.join(', ')}`,
    parts.length > 0 && `parts: ${parts.join(', ')}`,
    drawer > 0 && `${drawer} ${drawer === 1 ? 'line' : 'lines'} of the drawer`,
  ].filter(Boolean)
  const were = (count: number) => `${count} ${count === 1 ? 'was' : 'were'}`
  return [
    came.length > 0 ? `Brought ${came.join('; ')}.` : 'Nothing new was in it.',
    there > 0 && `${were(there)} there already.`,
    damaged > 0 && `${were(damaged)} left out when it was made, since they could not be read.`,
  ]
    .filter(Boolean)
    .join(' ')
}
