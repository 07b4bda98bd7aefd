import { torture } from './torture'

const [minutes] = process.argv.slice(2).map(Number)
const end = Date.now() + 60_000 * (minutes ?? 0)
let faults = 0
let points = 0
let seed = Number(process.env.SEED ?? 20261130)
do {
  console.log(`seed ${seed}`)
  const done = await torture(
    process.env.SHARE ? Number(process.env.SHARE) : 1,
    seed++,
    console.log,
    process.env.ONLY,
  )
  faults += done.flatMap((d) => d.faults).length
  points += done.reduce((n, d) => n + d.points, 0)
} while (Date.now() < end)
console.log(`\n${points} ends, ${faults} faults`)
process.exit(faults === 0 ? 0 : 1)
