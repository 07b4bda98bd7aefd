// Where the server listens and where it keeps its data, from the environment.

import { join } from 'node:path'

export interface Config {
  host: string
  port: number
  /** Folder of the SQLite file. */
  data: string
  /** The copy to go on from, where the data file is damaged. */
  from?: string
  /** Folders shipped with the program. */
  root: string
  /** The program of the thread that computes. */
  thread: string
}

export class StartFailure extends Error {
  override name = 'StartFailure'
}

export const readConfig = (env: NodeJS.ProcessEnv, root: string, thread: string): Config => {
  const port = env.PORT === undefined || env.PORT === '' ? 4870 : Number(env.PORT)
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new StartFailure(`PORT is “${env.PORT}”; it must be a whole number from 0 to 65535.`)
  return {
    host: env.HOST || '127.0.0.1',
    port,
    data: env.ROOT_BOARD_DATA || join(root, 'data'),
    from: env.ROOT_BOARD_FROM || undefined,
    root,
    thread,
  }
}
