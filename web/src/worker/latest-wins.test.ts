// Only the rule of latest-wins; the worker itself runs in the browser tests.

import { latestWins } from './latest-wins'

const later = () => new Promise<void>((resolve) => setTimeout(resolve, 5))

test('while one runs only the newest waits, and overtaken results are dropped', async () => {
  const ran: number[] = []
  const done: number[] = []
  const { ask } = latestWins<number, number>(
    async (n) => {
      ran.push(n)
      await later()
      return n * 10
    },
    (result) => done.push(result),
    () => undefined,
  )
  ;[1, 2, 3, 4].forEach(ask)
  await new Promise((resolve) => setTimeout(resolve, 40))
  expect(ran).toEqual([1, 4])
  expect(done).toEqual([40])
})

test('a failure is told, and does not stop what comes after', async () => {
  const failures: string[] = []
  const done: number[] = []
  const { ask } = latestWins<number, number>(
    async (n) => {
      await later()
      if (n === 1) throw new Error('no')
      return n
    },
    (n) => done.push(n),
    (error) => failures.push(error.message),
  )
  ask(1)
  await new Promise((resolve) => setTimeout(resolve, 20))
  ask(2)
  await new Promise((resolve) => setTimeout(resolve, 20))
  expect([failures, done]).toEqual([['no'], [2]])
})

test('what waits is forgotten; what runs answers, and what is asked afterwards', async () => {
  const done: number[] = []
  const { ask, forget } = latestWins<number, number>(
    async (n) => {
      await later()
      return n
    },
    (n) => done.push(n),
    () => undefined,
  )
  ask(1)
  ask(2)
  forget()
  await new Promise((resolve) => setTimeout(resolve, 20))
  ask(3)
  await new Promise((resolve) => setTimeout(resolve, 20))
  expect(done).toEqual([1, 3])
})
