// The builder's own drawer: how many of each part there are, where they lie, and since when that is so.

import type { DrawerLine } from '@root-board/core/api'
import { QueryTypes } from 'sequelize'
import type { Database } from './database'

export class DrawerStore {
  constructor(private readonly db: Database) {}

  list(): Promise<DrawerLine[]> {
    return this.db.reader.query<DrawerLine>('SELECT part, count, place, since FROM drawer ORDER BY part', {
      type: QueryTypes.SELECT,
    })
  }

  /** None of it, nowhere: the line goes. */
  async set(part: string, count: number, place: string): Promise<void> {
    await this.db.write(async (db) => {
      if (count === 0 && place === '')
        await db.query('DELETE FROM drawer WHERE part = :part', { replacements: { part } })
      else
        await db.query(
          'INSERT INTO drawer (part, count, place, since) VALUES (:part, :count, :place, :now) ON CONFLICT (part) DO UPDATE SET count = :count, place = :place, since = :now',
          { replacements: { part, count, place, now: new Date().toISOString() } },
        )
    })
  }
}
