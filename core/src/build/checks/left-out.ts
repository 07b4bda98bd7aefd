import type { Check } from '../../findings'

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
        text: s.risk.text.replace(/^Without it\b/, `Without the ${s.name}`),
        because: [
          {
            text: `The ${s.name} is left out${s.forced === 'out' ? ', against the stance' : ' by the stance'}`,
          },
          ...s.risk.facts,
        ],
        fixes: [{ label: `Put in the ${s.name}`, edits: [{ kind: 'putIn', support: s.key, name: s.name }] }],
        about: { support: s.key, signal: s.signal },
      })),
}
