// The application in this process, for tests of the API.

import { withFactsKept } from '@root-board/core/design'
import { pino } from 'pino'
import type { Express } from 'express'
import { makeApp } from '../src/app'
import { readDemoFolder, readLibraryFolder } from '../src/files'
import { type Database, openDatabase } from '../src/store/database'
import { Analyser } from '../src/analysis/analyser'
import { Copies } from '../src/store/copies'
import { EverythingStore } from '../src/store/everything'
import { DrawerStore } from '../src/store/drawer'
import { PartStore } from '../src/store/parts'
import { ProjectStore } from '../src/store/projects'
import { freshFolder, root, thread } from './serve'

export interface TestApi {
  app: Express
  db: Database
  close: () => Promise<void>
}

export const openApi = async (folder = freshFolder()): Promise<TestApi> => {
  const db = await openDatabase(folder)
  const parts = new PartStore(db, readLibraryFolder(root))
  const projects = new ProjectStore(db, async (design) => withFactsKept(design, await parts.library()))
  await projects.addSamplesOnce(() => readDemoFolder(root))
  const analyser = new Analyser(thread)
  return {
    db,
    close: async () => {
      await analyser.close()
      await db.close()
    },
    app: makeApp({
      db,
      copies: new Copies(db),
      everything: new EverythingStore(db, (id) => parts.sample(id) !== undefined),
      analyser,
      projects,
      parts,
      drawer: new DrawerStore(db),
      version: 'test',
      log: pino({ level: process.env.LOG_LEVEL ?? 'silent' }),
      hosts: [],
    }),
  }
}
