import { type Check, type Fact, say } from '../../findings'

const it = /^Without it\b/
/** What its absence risks is said beside it as of “it”; away from it by its name. */
const withName = (
  { text, says }: Pick<Fact, 'text' | 'says'>,
  name: string,
): Pick<Fact, 'text' | 'says'> => ({
  text: text.replace(it, `Without the ${name}`),
  says: {
    frame: says.frame.replace(it, `Without the {${says.of.length}}`),
    of: [...says.of, name],
  },
})

/** One rule for every support part: each carries what its absence risks. */
export const leftOut: Check = {
  id: 'build.left-out',
  stage: 'build',
  looksFor: 'a support part that is left out, by the builder or by the stance',
  rule: 'the part’s own reason and sum',
  run: ({ build }) =>
    build.support
      // The lamp and its resistor are one choice; the lamp speaks for both.
      .filter((s) => !s.present && s.key !== 'power-lamp-resistor')
      // What the stance leaves out is a note, unless the board can't work without it.
      .filter((s) => s.forced === 'out' || s.asked || s.risk.severity !== 'notes')
      .map((s) => ({
        id: `build.left-out:${s.key}`,
        severity: s.forced === 'out' || s.risk.severity === 'stops' ? s.risk.severity : 'notes',
        grade: s.risk.grade,
        ...withName(s.risk, s.name),
        because: [
          say`The ${s.name} is left out${s.forced === 'out' ? say`, against the stance` : say` by the stance`}`,
          ...s.risk.facts,
        ],
        fixes: [{ label: `Put in the ${s.name}`, edits: [{ kind: 'putIn', support: s.key, name: s.name }] }],
        about: { support: s.key, signal: s.signal },
      })),
}
