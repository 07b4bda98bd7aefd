import { type Check, type Found, partOrigin, say } from '../../findings'
import { formatQuantity, fullRange } from '../../quantity'
import { railOf } from '../../supply'

/** A linear regulator is stable with an output capacitor whose own resistance lies in a window. */
export const capacitorEsr: Check = {
  id: 'build.capacitor-esr',
  stage: 'build',
  looksFor: 'an output capacitor whose own resistance is outside what the regulator is stable with',
  rule: 'the window of the regulator’s sheet',
  run: ({ build, power: { supplies } }) =>
    supplies.converters.flatMap(({ part: regulator, to }): Found[] => {
      const window = regulator.outputCapacitor.esr
      const { net } = railOf(supplies, to)
      const fitted = build.support.find(
        (s) => s.present && s.role === 'regulator output capacitor' && s.legs.some((l) => l.net === net),
      )
      if (!window || fitted?.part.kind !== 'capacitors') return []
      const { esr, name, sheet } = fitted.part
      const ohms = (v: number) => formatQuantity(v, 'Ω', 2)
      const [least, most] = [window.min ?? 0, window.max ?? Infinity]
      const own = esr && fullRange(esr)
      if (own && own.min >= least && own.max <= most) return []
      const asked = `${ohms(least)}${most < Infinity ? ` to ${ohms(most)}` : ' and more'}`
      return [
        {
          id: `build.capacitor-esr${to === supplies.own ? '' : `:${to}`}`,
          severity: own ? 'risks' : 'notes',
          grade: own ? 'outside the sheet' : 'typical',
          ...(own
            ? say`The output of ${regulator.name} may oscillate: it is stable with ${asked} inside its capacitor, and ${name} has ${ohms(own.min)} to ${ohms(own.max)}.`
            : say`${regulator.name} is stable with ${asked} inside its output capacitor; what ${name} has is not stated.`),
          because: [
            {
              ...say`${regulator.sheet}: ${asked} in the output capacitor`,
              origin: partOrigin(regulator, 'outputCapacitor.esr', window),
            },
            {
              ...(own ? say`${sheet}: ${ohms(own.min)} to ${ohms(own.max)}` : say`${sheet} states none`),
              origin: partOrigin(fitted.part, 'esr', esr),
            },
          ],
          fixes: [],
          about: { support: fitted.key },
        },
      ]
    }),
}
