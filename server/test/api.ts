// The application in this process, for tests of the API.

import { pino } from 'pino'
import type { Sequelize } from 'sequelize'
import type { Express } from 'express'
import { makeApp } from '../src/app'
import { readDemoFolder, readLibraryFolder } from '../src/files'
import { openDatabase } from '../src/store/database'
import { PartStore } from '../src/store/parts'
import { ProjectStore } from '../src/store/projects'
import { freshFolder, root } from './serve'

export interface TestApi {
  app: Express
  db: Sequelize
}

export const openApi = async (): Promise<TestApi> => {
  const db = await openDatabase(freshFolder())
  const projects = new ProjectStore(db)
  await projects.addSamplesOnce(() => readDemoFolder(root))
  const parts = new PartStore(db, readLibraryFolder(root))
  return {
    db,
    app: makeApp({
      projects,
      parts,
      version: 'test',
      log: pino({ level: process.env.LOG_LEVEL ?? 'silent' }),
      hosts: [],
    }),
  }
}
