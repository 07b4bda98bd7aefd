// The builder's own drawer: how many of each part there are, where they lie, and since when that is so.

import { QueryTypes, type Sequelize } from 'sequelize'

export interface DrawerLine {
  part: string
  count: number
  place: string
  since: string
}

export class DrawerStore {
  constructor(private readonly db: Sequelize) {}

  list(): Promise<DrawerLine[]> {
    return this.db.query<DrawerLine>('SELECT part, count, place, since FROM drawer ORDER BY part', {
      type: QueryTypes.SELECT,
    })
  }

  /** None of it, nowhere: the line goes. */
  async set(part: string, count: number, place: string): Promise<void> {
    if (count === 0 && place === '')
      await this.db.query('DELETE FROM drawer WHERE part = :part', { replacements: { part } })
    else
      await this.db.query(
        'INSERT INTO drawer (part, count, place, since) VALUES (:part, :count, :place, :now) ON CONFLICT (part) DO UPDATE SET count = :count, place = :place, since = :now',
        { replacements: { part, count, place, now: new Date().toISOString() } },
      )
  }
}
