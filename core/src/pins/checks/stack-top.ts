import { type Check, say } from '../../findings'
import { doWithout } from './fixes'

export const stackTop: Check = {
  id: 'pins.stack-top',
  stage: 'pins',
  looksFor: 'two expansion boards of which each must be the topmost',
  rule: 'whether an expansion board passes the header on',
  run: ({ needs }) => {
    const tops = needs.instances.filter((i) => i.part.expansion?.top)
    if (tops.length < 2) return []
    const names = tops.map((i) => i.name)
    return [
      {
        id: 'pins.stack-top',
        severity: 'stops',
        grade: 'impossible',
        ...say`${names.join(' and ')} can’t be stacked: neither passes the header on, and only one can be on top.`,
        because: tops.map((i) => say`${i.part.sheet}: ${i.name} has no sockets on its upper side`),
        fixes: tops.map((i) => doWithout(i.need)),
        about: { device: tops[1]!.need.id },
      },
    ]
  },
}
