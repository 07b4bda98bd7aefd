/** A calculator for copied lines: JavaScript’s own arithmetic, and nothing of the sums. */
export const calculate = (line: string): number =>
  // eslint-disable-next-line @typescript-eslint/no-implied-eval, @typescript-eslint/no-unsafe-call -- the line is what is tried
  Function(
    'sqrt',
    'ln',
    'exp',
    'abs',
    'round',
    'min',
    'max',
    `return ${line.replaceAll('^', '**')}`,
  )(Math.sqrt, Math.log, Math.exp, Math.abs, Math.round, Math.min, Math.max) as number
