// Versions over HTTP: an ETag with each answer, and the version that a save was made from.

import type { Request, Response } from 'express'
import { sendProblem } from '../problems'

export const tag = (version: number): string => `"${version}"`

/** The version in If-Match; without one the request is answered as refused. */
export const savedFrom = (req: Request, res: Response): number | undefined => {
  const match = /^"(\d+)"$/.exec(req.get('If-Match') ?? '')
  if (!match)
    sendProblem(res, { title: 'A save must say which version it was made from (If-Match)', status: 428 })
  return match ? Number(match[1]) : undefined
}
