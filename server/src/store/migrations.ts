// What the tables look like, step by step. A step that has been released is never changed.

import { DataTypes, type QueryInterface } from 'sequelize'

interface Migration {
  name: string
  up: (params: { context: QueryInterface }) => Promise<void>
  down?: never
}

export const migrations: Migration[] = [
  {
    name: '001-projects-and-parts',
    up: async ({ context }) => {
      await context.createTable('projects', {
        id: { type: DataTypes.STRING, primaryKey: true },
        design: { type: DataTypes.TEXT, allowNull: false },
        version: { type: DataTypes.INTEGER, allowNull: false },
        sample: { type: DataTypes.BOOLEAN, allowNull: false, defaultValue: false },
        changedAt: { type: DataTypes.STRING, allowNull: false },
        deletedAt: { type: DataTypes.STRING, allowNull: true },
      })
      await context.createTable('parts', {
        id: { type: DataTypes.STRING, primaryKey: true },
        part: { type: DataTypes.TEXT, allowNull: false },
        changedAt: { type: DataTypes.STRING, allowNull: false },
      })
      await context.createTable('marks', {
        name: { type: DataTypes.STRING, primaryKey: true },
        value: { type: DataTypes.STRING, allowNull: false },
      })
    },
  },
  {
    name: '002-drawer-and-part-versions',
    up: async ({ context }) => {
      await context.addColumn('parts', 'version', {
        type: DataTypes.INTEGER,
        allowNull: false,
        defaultValue: 1,
      })
      await context.addColumn('parts', 'deletedAt', { type: DataTypes.STRING, allowNull: true })
      await context.createTable('drawer', {
        part: { type: DataTypes.STRING, primaryKey: true },
        count: { type: DataTypes.INTEGER, allowNull: false },
        place: { type: DataTypes.STRING, allowNull: false },
        since: { type: DataTypes.STRING, allowNull: false },
      })
    },
  },
]
