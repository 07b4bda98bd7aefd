// Part and project files as they lie in the folders, read here anew: the referee shares no line with the program.

import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'

/* eslint-disable @typescript-eslint/no-explicit-any -- files are read as they are, without the program’s types */
export type Json = any

export const shelf = (root: string): Map<string, Json> =>
  new Map(
    readdirSync(join(root, 'library'), { recursive: true, encoding: 'utf8' })
      .filter((f) => f.endsWith('.json'))
      .map((f) => JSON.parse(readFileSync(join(root, 'library', f), 'utf8')))
      .map((p) => [p.id, p]),
  )

const prefixes: Record<string, number> = {
  G: 1e9,
  M: 1e6,
  k: 1e3,
  m: 1e-3,
  µ: 1e-6,
  u: 1e-6,
  n: 1e-9,
  p: 1e-12,
}

/** `"2.7 kHz"`, `"4k7"` or a number, in SI. */
export const si = (given: unknown): number => {
  if (typeof given === 'number') return given
  const text = String(given).trim()
  const marked = /^(\d+)([kMRmunp])(\d*)$/.exec(text)
  if (marked)
    return Number(`${marked[1]}.${marked[3] || 0}`) * (marked[2] === 'R' ? 1 : prefixes[marked[2]!]!)
  const match = /^(-?[\d.]+(?:e-?\d+)?)\s*([GMkmµunp]?)(?:A\/Hz|Hz|Ω\/m|Ω|K\/W|Ah|A|V|F|W|s|°C|%|m)?$/.exec(
    text,
  )
  if (!match) throw new Error(`no number: ${text}`)
  return Number(match[1]) * (match[2] ? prefixes[match[2]]! : 1)
}

/** The highest value that a rated field states. */
export const highest = (rated: Json): number =>
  typeof rated === 'object' ? si(rated.max ?? rated.typ ?? rated.min) : si(rated)

/** Which kind of unit a kind of signal needs. */
export const unitNeeded: Record<string, string> = {
  'analog-in': 'converter',
  'analog-out': 'dac',
  pwm: 'timer',
  interrupt: 'interrupt',
  touch: 'touch',
  wake: 'wake',
  capture: 'timer',
  quadrature: 'timer',
}

export interface Function_ {
  unit: string
  signal: string
}
export const functionOf = (given: Json): Function_ => {
  if (typeof given !== 'string') return given as Function_
  const [unit, rest] = given.split('.') as [string, string]
  return { unit, signal: rest.split('@')[0]! }
}
