// Errors as application/problem+json (RFC 9457), with a path for each fault.

import type { ProblemBody } from '@root-board/core/api'
import { FaultyFile } from '@root-board/core/parts'
import type { ErrorRequestHandler, Response } from 'express'
import { ValidationError } from 'yup'
import { AnalyserBusy, AnalysisStopped } from './analysis/analyser'
import { FileGone } from './store/database'
import { codeOf } from './store/file'
import { DamagedProject } from './store/projects'

export const sendProblem = (res: Response, body: ProblemBody): void => {
  res.status(body.status).type('application/problem+json').send(JSON.stringify(body))
}

/** What keeps the data file from being written, in words; nothing of the request was kept then. */
const ofTheFile = (error: unknown): ProblemBody | undefined => {
  if (error instanceof FileGone) return { title: error.message, status: 503 }
  switch (codeOf(error)) {
    case 'SQLITE_FULL':
      return { title: 'The disk is full; nothing was saved', status: 507 }
    case 'SQLITE_BUSY':
      return { title: 'Another program has the data file; nothing was saved', status: 503 }
    case 'SQLITE_READONLY':
    case 'SQLITE_IOERR':
    case 'SQLITE_CANTOPEN':
      return { title: 'The data file can’t be written; nothing was saved', status: 503 }
    case 'SQLITE_CORRUPT':
    case 'SQLITE_NOTADB':
      return {
        title: 'The data file is damaged; start the program anew, and it says what to do',
        status: 503,
      }
    default:
      return undefined
  }
}

export const handleErrors =
  (log: (error: unknown) => void): ErrorRequestHandler =>
  (error: unknown, _req, res, next) => {
    if (res.headersSent) return next(error)
    if (error instanceof FaultyFile)
      return sendProblem(res, {
        title: 'The file has faults',
        status: 422,
        detail: error.file,
        faults: error.faults,
      })
    if (error instanceof ValidationError)
      return sendProblem(res, {
        title: 'Not understood',
        status: 422,
        faults: (error.inner.length > 0 ? error.inner : [error]).slice(0, 20).map((e) => ({
          path: e.path ?? '',
          message: e.message.slice(0, 300),
        })),
      })
    if (error instanceof DamagedProject)
      return sendProblem(res, { title: error.message, status: 422, damaged: error.id })
    if (error instanceof AnalyserBusy) {
      res.set('Retry-After', '5')
      return sendProblem(res, { title: error.message, status: 503 })
    }
    if (error instanceof AnalysisStopped) return sendProblem(res, { title: error.message, status: 503 })
    const { status, type } = error as { status?: number; type?: string }
    if (type === 'entity.too.large')
      return sendProblem(res, {
        title: 'Too large: at most 4 MB can be sent, and 64 MB of everything',
        status: 413,
      })
    if (type === 'entity.parse.failed')
      return sendProblem(res, {
        title: 'That is not JSON',
        status: 400,
        faults: [{ path: '', message: 'is not JSON' }],
      })
    const refused = ofTheFile(error)
    if (refused) {
      log(error)
      if (refused.status === 503) res.set('Retry-After', '1')
      return sendProblem(res, refused)
    }
    if (status && status >= 400 && status < 500) return sendProblem(res, { title: 'Refused', status })
    log(error)
    return sendProblem(res, { title: 'Something failed on the server; nothing was changed', status: 500 })
  }
