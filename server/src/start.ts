// Starting and stopping the server as a whole.

import { readFileSync } from 'node:fs'
import type { AddressInfo } from 'node:net'
import { hostname, networkInterfaces } from 'node:os'
import { join } from 'node:path'
import type { Server } from 'node:http'
import { withFactsKept } from '@root-board/core/design'
import { FaultyFile } from '@root-board/core/parts'
import { pino } from 'pino'
import { makeApp } from './app'
import { type Config, StartFailure } from './config'
import { readDemoFolder, readLibraryFolder } from './files'
import { Analyser } from './analysis/analyser'
import { Copies } from './store/copies'
import { openDatabase } from './store/database'
import { EverythingStore } from './store/everything'
import { DrawerStore } from './store/drawer'
import { PartStore } from './store/parts'
import { ProjectStore } from './store/projects'

export interface Running {
  address: string
  stop: () => Promise<void>
}

/** Starts listening. Throws StartFailure in one sentence. */
export const startServer = async (config: Config): Promise<Running> => {
  const log = pino({ level: process.env.LOG_LEVEL ?? 'warn' }, pino.destination(2))
  const samples = readOrExplain(() => readLibraryFolder(config.root))
  const db = await openDatabase(config.data, config.from, (words) => console.error(words))
  const parts = new PartStore(db, samples)
  const projects = new ProjectStore(db, async (design) => withFactsKept(design, await parts.library()))
  await projects.addSamplesOnce(() => readOrExplain(() => readDemoFolder(config.root)))
  const { version } = JSON.parse(readFileSync(join(config.root, 'package.json'), 'utf8')) as {
    version: string
  }
  const copies = new Copies(db, (error) => log.error(error))
  const analyser = new Analyser(config.thread)
  const app = makeApp({
    db,
    projects,
    parts,
    drawer: new DrawerStore(db),
    copies,
    everything: new EverythingStore(db, (id) => parts.sample(id) !== undefined),
    analyser,
    version,
    log,
    hosts: everywhere.has(config.host)
      ? ownNames()
      : [config.host.includes(':') ? `[${config.host}]` : config.host],
    page: join(config.root, 'web', 'dist'),
  })
  const server = await new Promise<Server>((resolve, reject) => {
    const listening = app.listen(config.port, config.host, (error?: Error) => {
      if (error) reject(explainListen(error, config))
      else resolve(listening)
    })
  })
  const { port } = server.address() as AddressInfo
  copies.begin()
  return {
    address: addressOf(config.host, port),
    stop: async () => {
      await new Promise<void>((resolve) => {
        server.close(() => resolve())
        server.closeIdleConnections()
        // What is still being answered gets a moment; then the connection goes.
        setTimeout(() => server.closeAllConnections(), 2000).unref()
      })
      copies.end()
      await analyser.close()
      await db.close()
    },
  }
}

const everywhere = new Set(['0.0.0.0', '::'])
/** What this machine is called by others in its network. */
const ownNames = (): string[] => [
  hostname(),
  ...Object.values(networkInterfaces()).flatMap((net) =>
    (net ?? []).map((n) => (n.family === 'IPv6' ? `[${n.address}]` : n.address)),
  ),
]
/** One that a browser opens: no browser opens every address at once. */
const addressOf = (host: string, port: number): string =>
  `http://${everywhere.has(host) ? 'localhost' : host.includes(':') ? `[${host}]` : host}:${port}`

const readOrExplain = <T>(read: () => T): T => {
  try {
    return read()
  } catch (error) {
    if (error instanceof FaultyFile) throw new StartFailure(`${error.message}.`)
    throw error
  }
}

const explainListen = (error: Error, config: Config): Error => {
  const { code } = error as NodeJS.ErrnoException
  if (code === 'EADDRINUSE')
    return new StartFailure(
      `Port ${config.port} on ${config.host} is in use; set PORT to another one, or stop what is using it.`,
    )
  if (code === 'EACCES')
    return new StartFailure(`Port ${config.port} may not be used by this user; set PORT to one above 1023.`)
  if (code === 'EADDRNOTAVAIL')
    return new StartFailure(`${config.host} is not an address of this machine; set HOST to one that is.`)
  return error
}
