// The Express application: hardening, API, and the built page. Composes; each router owns one resource.

import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { withinBounds } from '@root-board/core/parts'
import express, { type Express, type RequestHandler } from 'express'
import helmet from 'helmet'
import type { Logger } from 'pino'
import { handleErrors, sendProblem } from './problems'
import { analyseRoutes } from './routes/analyse'
import { drawerRoutes, partRoutes } from './routes/parts'
import { projectRoutes } from './routes/projects'
import { copyRoutes, everythingRoutes } from './routes/copies'
import type { Analyser } from './analysis/analyser'
import type { Copies } from './store/copies'
import type { Database } from './store/database'
import type { EverythingStore } from './store/everything'
import type { DrawerStore } from './store/drawer'
import type { PartStore } from './store/parts'
import type { ProjectStore } from './store/projects'

export interface AppParts {
  db: Database
  projects: ProjectStore
  parts: PartStore
  drawer: DrawerStore
  copies: Copies
  everything: EverythingStore
  analyser: Analyser
  version: string
  log: Logger
  /** Names under which this server may be addressed, besides loopback. */
  hosts: string[]
  /** Folder of the built page; absent in tests of the API alone. */
  page?: string
}

const loopback = ['127.0.0.1', 'localhost', '[::1]']
const hostOf = (value: string) => value.replace(/:\d+$/, '')

/** A page from elsewhere can't talk to this server, not even through a name that resolves to this machine. */
const ownPagesOnly = (hosts: string[]): RequestHandler => {
  const allowed = new Set([...loopback, ...hosts])
  return (req, res, next) => {
    const host = req.get('Host')
    if (!host || !allowed.has(hostOf(host)))
      return sendProblem(res, { title: 'This host name is not served here', status: 421 })
    const origin = req.get('Origin')
    if (origin !== undefined && origin !== `http://${host}`)
      return sendProblem(res, { title: 'Requests from other pages are refused', status: 403 })
    next()
  }
}

/** Addresses that the page has something to show at; at any other it says that there is nothing. */
const isOfThePage = (path: string): boolean => /^\/($|(projects|parts|copies|kit)(\/|$))/.test(path)

/** A library, or everything, is as many files in one. */
const ofMany = { depth: 40, entries: 5000, values: 3_000_000 }

/** An address with what no id and no name has leads nowhere. */
const onlyWhatCanBe: RequestHandler = (req, res, next) => {
  let path: string | undefined
  try {
    path = decodeURIComponent(req.path)
  } catch {
    path = undefined
  }
  // eslint-disable-next-line no-control-regex
  if (path === undefined || /[\u0000-\u001f\u007f\ud800-\udfff]/u.test(path))
    return sendProblem(res, { title: 'There is nothing at this address', status: 404 })
  next()
}

export const makeApp = (given: AppParts): Express => {
  const { db, projects, parts, drawer, copies, everything, analyser, version, log, hosts, page } = given
  const app = express()
  app.disable('x-powered-by')
  // A version is the tag of what has one; nothing else is kept by anybody.
  app.disable('etag')
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          // The component library writes its styles into the page.
          styleSrc: ["'self'", "'unsafe-inline'"],
          fontSrc: ["'self'"],
          imgSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          manifestSrc: ["'self'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      // With the opener and resource policies that are on already, the page may share memory with its workers: a bell
      // that ends a search which is no longer wanted.
      crossOriginEmbedderPolicy: true,
      strictTransportSecurity: false,
      referrerPolicy: { policy: 'no-referrer' },
    }),
  )
  app.use(ownPagesOnly(hosts))
  app.use('/api', onlyWhatCanBe)
  app.use('/api', (_req, res, next) => {
    res.set({ 'Cache-Control': 'no-store', 'Content-Disposition': 'attachment; filename="api.json"' })
    next()
  })
  app.use('/api', async (_req, _res, next) => {
    await db.mustBeThere()
    next()
  })
  app.use('/api/everything', express.json({ limit: '64mb', strict: true }))
  app.use('/api', express.json({ limit: '4mb', strict: true }))
  app.use('/api', (req, _res, next) => {
    withinBounds(
      req.body,
      'request',
      req.path === '/everything' || req.path === '/parts/library' ? ofMany : {},
    )
    next()
  })
  // Counted anew when something was written: whoever asks how the program is waits for nothing else.
  let counted: { writes: number; parts: number; projects: number } | undefined
  app.get('/api/health', async (_req, res) => {
    const { writes } = db
    if (counted?.writes !== writes)
      counted = { writes, parts: await parts.count(), projects: await projects.count() }
    res.json({ status: 'ok', version, parts: counted.parts, projects: counted.projects })
  })
  app.use('/api/projects', projectRoutes(projects))
  app.use('/api/parts', partRoutes(parts, projects))
  app.use('/api/drawer', drawerRoutes(drawer))
  app.use('/api/analyse', analyseRoutes(parts, analyser))
  app.use('/api/copies', copyRoutes(copies))
  app.use('/api/everything', everythingRoutes(everything))
  app.use('/api', (_req, res) => sendProblem(res, { title: 'There is nothing at this address', status: 404 }))
  if (page && existsSync(join(page, 'index.html'))) {
    app.use(
      '/assets',
      express.static(join(page, 'assets'), {
        immutable: true,
        maxAge: '1y',
        index: false,
        fallthrough: false,
      }),
    )
    app.use(express.static(page, { index: false }))
    app.get(/.*/, (req, res) => {
      res.status(isOfThePage(req.path) ? 200 : 404)
      res.set('Cache-Control', 'no-cache').sendFile(join(page, 'index.html'))
    })
  }
  app.use(handleErrors((error) => log.error(error)))
  return app
}
