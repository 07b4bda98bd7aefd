// Running other programs from the scripts, with only what Node brings.

import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join, relative } from 'node:path'
import { fileURLToPath } from 'node:url'

export const root = fileURLToPath(new URL('../..', import.meta.url))
const bin = join(root, 'node_modules', '.bin')

/** Runs a program; resolves with its exit code. `onOutput` sees what it prints; `toStderr` keeps our own output clean. */
export const run = (command, args, { env = {}, quiet = false, toStderr = false, onOutput } = {}) =>
  new Promise((resolve, reject) => {
    const child = spawn(command, args, {
      cwd: root,
      env: { ...process.env, ...env, PATH: `${bin}:${process.env.PATH}` },
      stdio: [
        'ignore',
        onOutput || quiet ? 'pipe' : toStderr ? process.stderr : 'inherit',
        onOutput || quiet ? 'pipe' : 'inherit',
      ],
    })
    const see = (chunk, to) => {
      if (!quiet) to.write(chunk)
      onOutput?.(String(chunk))
    }
    child.stdout?.on('data', (c) => see(c, process.stdout))
    child.stderr?.on('data', (c) => see(c, process.stderr))
    child.on('error', reject)
    child.on('close', (code) => resolve(code ?? 1))
  })

/** Runs and stops the whole script when it fails. */
export const must = async (what, command, args, options) => {
  const code = await run(command, args, options)
  if (code === 0) return
  console.error(`\n${what} failed.`)
  process.exit(1)
}

const filesBelow = (place) =>
  statSync(place).isDirectory()
    ? readdirSync(place)
        .filter((n) => n !== 'node_modules' && n !== 'dist')
        .sort()
        .flatMap((n) => filesBelow(join(place, n)))
    : [place]

/** A mark that changes when any of these files or folders does. */
export const fingerprint = (places) => {
  const hash = createHash('sha256').update(process.version)
  for (const file of places
    .map((p) => join(root, p))
    .filter(existsSync)
    .flatMap(filesBelow))
    // By its place in the project: a folder that was moved is the same.
    hash.update(relative(root, file)).update('\0').update(readFileSync(file)).update('\0')
  return hash.digest('hex')
}

/** Does the work unless it was done for the same files before. `proof` must exist as well. */
export const onceFor = async (name, places, proof, work) => {
  const mark = join(root, 'node_modules', '.cache', `root-board-${name}`)
  const now = fingerprint(places)
  if (existsSync(join(root, proof)) && existsSync(mark) && readFileSync(mark, 'utf8') === now) return false
  await work()
  mkdirSync(dirname(mark), { recursive: true })
  writeFileSync(mark, now)
  return true
}
