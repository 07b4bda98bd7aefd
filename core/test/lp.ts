/** A programme of binaries to be minimised, in CPLEX-LP text. `objective`: terms such as `3 x1`; `rows`: whole constraints. */
export const lpText = (objective: string[], rows: string[], binaries: ReadonlySet<string>): string => {
  const [first = 'nothing'] = binaries
  return [
    'Minimize',
    ` obj: ${objective.length > 0 ? objective.join(' + ') : `0 ${first}`}`,
    'Subject To',
    ...rows.map((row, i) => ` c${i}: ${row}`),
    'Binary',
    ` ${[...binaries, ...(binaries.size === 0 ? [first] : [])].join('\n ')}`,
    'End',
  ].join('\n')
}
