import type { Source } from '../parts'

/** A lithium cell that is charged again and again, with nothing on it that opens when it is empty or shorted. */
export const unprotected = ({ sort, rechargeable, cautions, protection }: Source): boolean =>
  sort === 'cells' && rechargeable === true && (cautions?.includes('lithium') ?? false) && !protection
