import type { FoundLeg } from '@root-board/core/intake'

/** What each type of leg is called. */
export const typeWords: Record<FoundLeg['type'], string> = {
  io: 'in and out',
  input: 'input',
  output: 'output',
  supply: 'supply',
  ground: 'ground',
  reference: 'reference',
  radio: 'antenna',
  none: 'not connected',
}
