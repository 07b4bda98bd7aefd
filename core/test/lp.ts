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

export interface IntegerProgrammeSolver {
  solve: (text: string, options?: object) => { Status: string; ObjectiveValue: number }
}

export interface Judgement {
  status: string
  cost?: number
}

/**
 * What the integer programme's solver says. Where it disagrees with us, or breaks off with an error of its own (random instances
 * of 40 pins from 749771127), it is asked a second time without its presolve, which was seen to call a programme infeasible
 * that has a plan of cost 42 (random instance 666820740 of 144 pins): the second word counts.
 */
export const judge = (solver: IntegerProgrammeSolver, text: string, ours: Judgement): Judgement => {
  const ask = (options: object): Judgement => {
    const { Status, ObjectiveValue } = solver.solve(text, options)
    return { status: Status, cost: Status === 'Optimal' ? Math.round(ObjectiveValue) : undefined }
  }
  const first = answered(() => ask({}))
  return first?.status === ours.status && first.cost === ours.cost ? first : ask({ presolve: 'off' })
}

const answered = <T>(ask: () => T): T | undefined => {
  try {
    return ask()
  } catch {
    return undefined
  }
}
