// What is put away stays in its table, out of sight, and can be brought back.

import { QueryTypes, type Sequelize } from 'sequelize'

type Kept = 'projects' | 'parts'

/** Whether there was anything to put away. */
export const putAway = async (db: Sequelize, table: Kept, id: string): Promise<boolean> => {
  const gone = await db.query(
    `UPDATE ${table} SET deletedAt = :now WHERE id = :id AND deletedAt IS NULL RETURNING id`,
    { type: QueryTypes.SELECT, replacements: { id, now: new Date().toISOString() } },
  )
  return gone.length > 0
}
/** For good. Answers with how many: one of an id, or all that were put away. */
export const emptyAway = async (db: Sequelize, table: Kept, id?: string): Promise<number> => {
  const gone = await db.query(
    `DELETE FROM ${table} WHERE deletedAt IS NOT NULL${id === undefined ? '' : ' AND id = :id'} RETURNING id`,
    { type: QueryTypes.SELECT, replacements: { id } },
  )
  return gone.length
}
export const bringBack = async (db: Sequelize, table: Kept, id: string): Promise<void> => {
  await db.query(`UPDATE ${table} SET deletedAt = NULL WHERE id = :id`, { replacements: { id } })
}
