// What a room is: its files, the suites that are asked about its faults, the nearest first, and its own suites.

import { readdirSync, statSync } from 'node:fs'
import { join, relative } from 'node:path'
import { root } from './run.mjs'

/** Where a room lies; any other folder of source files can be named by its path. */
const places = {
  server: ['server/src'],
  store: ['web/src/store'],
  shared: ['web/src/shared'],
}

/** Suites that take minutes, run other programs or draw at random: they are not asked about each mutant. */
const slow =
  /referee\.test|offers\.test|src\/solve\/solve\.test|physics\.test|targets\.test|mutations\.test|requests\.test|torture\.test|random-library|start\.test|laws\.test|formulas\.test/

/** Asked about its own room's faults, but not in a run of seconds. */
const halfAMinute = /planner\/rules\.test/

/** Suites that start the whole server, again and again: not even about its own faults. */
const ever = /^server\/src\/(start|mutations|requests|torture)\.test/

/** Suites far from a room that its faults reach all the same, since they look at what a builder is told and gets. */
const everywhere =
  /^(?!core\/)|^core\/src\/(analysis\/(analysis|traps|stack)|build\/|pins\/(corners|sums)|legs\/|levels\/|planner\/plan|power\/|states\/|supply\/)/

const below = (dir) =>
  readdirSync(join(root, dir))
    .sort()
    .flatMap((name) => {
      const file = `${dir}/${name}`
      return statSync(join(root, file)).isDirectory() ? below(file) : [file]
    })

/** @returns the room's files to mutate and the suites to ask, in order; throws where there is no such room. */
export const roomOf = (name) => {
  const folders = places[name] ?? [name.includes('/') ? name.replace(/\/$/, '') : `core/src/${name}`]
  const project = folders[0].split('/')[0]
  let files
  try {
    files = folders.flatMap(below)
  } catch {
    throw new Error(
      `There is no room "${name}". Name a folder of core/src, one of ${Object.keys(places).join(', ')}, or a path.`,
    )
  }
  const source = files.filter((f) => /\.tsx?$/.test(f) && !/\.test\.|\/test\/|\.d\.ts$/.test(f))
  if (source.length === 0) throw new Error(`No source file below ${folders.join(', ')}.`)
  const near = (f) =>
    folders.some((d) => f.startsWith(`${d}/`))
      ? 0
      : f.startsWith(`${folders[0].split('/').slice(0, 3).join('/')}/`)
        ? 1
        : 2
  const suites = below(`${project}`)
    .filter(
      (f) =>
        !f.includes('node_modules') &&
        /\.test\.tsx?$/.test(f) &&
        !ever.test(f) &&
        (near(f) === 0 || (!slow.test(f) && everywhere.test(f))),
    )
    .sort((a, b) => near(a) - near(b) || statSync(join(root, a)).size - statSync(join(root, b)).size)
  /** The room's own suites, without those that take minutes. */
  const takesLong = (f) => slow.test(f) || halfAMinute.test(f)
  const own = suites.filter((f) => near(f) === 0 && !takesLong(f))
  const left = suites.filter((f) => near(f) === 0 && takesLong(f))
  return { project, source: source.map((f) => relative(root, join(root, f))), suites, own, left }
}
