// Fixes that are offered, over random projects: each clears its finding, brings nothing as bad, and does what its preview
// said. `npm run deep` takes 300 projects.

import { join } from 'node:path'
import { shippedLibrary } from '../../test/files'
import { shelf } from '../../test/referee/files'
import { randomProject } from '../../test/referee/projects'
import { deep, firstSeed } from '../../test/share'
import { applyEdits, readDesign } from '../design'
import { analyse, compareAnalyses, offersFor } from '.'

const library = shippedLibrary()
const files = shelf(join(__dirname, '..', '..', '..'))
const feeds = ['adapter-5v', 'adapter-9v', 'usb-port', 'cells-3-aa', 'adapter-12v']
const regulators = ['bl33-low', 'bl5-low', 'bl5-cool', 'br5-plain', undefined]
const rank = { stops: 0, risks: 1, notes: 2 }

test('over random projects every offered fix does what it says', () => {
  const seed = firstSeed('offered fixes')
  const kinds = new Set<string>()
  let offered = 0
  for (let n = 0; n < (deep ? 300 : 14); n++) {
    const drawn = readDesign(
      randomProject(files, seed + n, { signals: [3, 20], hard: n % 4 === 0 }),
      'random',
    )
    const stances = ['by-the-book', 'lean', 'bare-bones'] as const
    const design = {
      ...drawn,
      stance: stances[(seed + n) % 3]!,
      power: {
        source: feeds[(seed + 3 * n) % feeds.length]!,
        regulator: drawn.chip.clock ? regulators[(seed + n) % regulators.length] : undefined,
      },
    }
    const before = analyse(design, library)
    const [, ...rest] = before.findings
    for (const finding of [before.findings[0]!, ...rest.slice(-3)].filter(Boolean)) {
      const { offers } = offersFor(before, library, finding)
      for (const { fix, preview } of offers) {
        offered++
        kinds.add(finding.check)
        const where = `seed ${seed + n}, ${finding.id}, ${fix.label}`
        const after = analyse(applyEdits(design, fix.edits), library)
        expect([
          where,
          after.findings.some((f) => f.id === finding.id && f.severity === finding.severity),
        ]).toEqual([where, false])
        const known = new Set(before.findings.map((f) => `${f.severity} ${f.id}`))
        const worse = after.findings.filter(
          (f) =>
            !known.has(`${f.severity} ${f.id}`) &&
            rank[f.severity] <= rank[finding.severity] &&
            f.severity !== 'notes',
        )
        expect([where, worse.map((f) => f.text)]).toEqual([where, []])
        expect([where, compareAnalyses(before, after)]).toEqual([where, preview])
      }
    }
  }
  expect(offered).toBeGreaterThan(deep ? 200 : 5)
  if (deep) expect(kinds.size).toBeGreaterThan(8)
}, 3_600_000)
