/** A calculator for copied lines: JavaScript’s own arithmetic, and nothing of the sums. */
export const calculate = (line: string): number =>
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
