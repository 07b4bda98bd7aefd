// A sentence and its parts: what another language is made from.

import { shippedLibrary } from '../../test/files'
import { project } from '../../test/project'
import { analyse } from '../analysis'
import { inWords, say, unsaid } from '.'

test('the sentence is what the template says, its frame what is said of every project', () => {
  const leg = say`leg ${5} (${'PA4'})`
  const said = say`${'Lamp'} is on ${leg}${unsaid}, and gets ${'20 mA'}.`
  expect(said.text).toBe('Lamp is on leg 5 (PA4), and gets 20 mA.')
  expect(said.says.frame).toBe('{0} is on {1}{2}, and gets {3}.')
  expect(leg.says).toEqual({ frame: 'leg {0} ({1})', of: [5, 'PA4'] })
  expect(inWords(said.says)).toBe(said.text)
})

test('by a table in another order, with pieces and words of its own; what it lacks stays', () => {
  const table = {
    '{0} is on {1}, held {2}.': 'An {1} hängt {0}, {2} gehalten; also {0}.',
    'leg {0} ({1})': 'Bein {0} ({1})',
    high: 'hoch',
  }
  const { says } = say`${'Taster'} is on ${say`leg ${5} (${'PA4'})`}, held ${'high'}.`
  expect(inWords(says, table)).toBe('An Bein 5 (PA4) hängt Taster, hoch gehalten; also Taster.')
  expect(inWords(says, {})).toBe('Taster is on leg 5 (PA4), held high.')
})

test('a finding of a project in another language by its frames: names and numbers are what they were', () => {
  const library = shippedLibrary()
  // A pump of 12 V on a rail of 5 V.
  const design = project({
    chip: 'td8-28-dip',
    source: 'adapter-5v',
    devices: [['no-such-part', 'Pumpe']],
  })
  const found = analyse(design, library).findings.find((f) => f.check === 'needs.unknown-device')!
  expect(
    inWords(found.says, {
      '{0} is made of part “{1}”, which is not in the library: nothing about it is computed.':
        '{0} besteht aus „{1}“, das die Bibliothek nicht kennt: gerechnet wird damit nichts.',
    }),
  ).toBe('Pumpe besteht aus „no-such-part“, das die Bibliothek nicht kennt: gerechnet wird damit nichts.')
})
