// npm run test:room -- ROOM: the tests of one room, in seconds.

import { ensureInstalled } from './lib/install.mjs'
import { run } from './lib/run.mjs'
import { roomOf } from './lib/rooms.mjs'

const [name, ...more] = process.argv.slice(2)
if (!name) {
  console.error('Usage: npm run test:room -- ROOM')
  process.exit(2)
}
let room
try {
  room = roomOf(name)
} catch (error) {
  console.error(error.message)
  process.exit(2)
}
await ensureInstalled()
if (room.own.length === 0) {
  console.error(`${name} has no tests of its own that take only seconds.`)
  process.exit(2)
}
const code = await run('jest', ['--selectProjects', room.project, ...more, '--runTestsByPath', ...room.own])
if (room.left.length > 0) console.log(`Left out, since they take long: ${room.left.join(', ')}`)
process.exit(code)
