// A sentence kept in its parts: what is always said, and what is said of this project. The sentence itself is what the
// screen shows; the parts are what another language is made from, by a table of frames.

/** What stands in a frame’s gap: a name, a number with its unit, or a piece of a sentence. */
export type Gap = string | number | Sentence

export interface Sentence {
  /** What is always said, with numbered gaps: `{0} gets up to {1}.`; by it a table of another language finds its own. */
  frame: string
  of: Gap[]
}

export interface Said {
  text: string
  says: Sentence
}

const isSaid = (value: string | number | Said): value is Said => typeof value === 'object'

/** A template of which the frame and what filled it are kept. Pieces that were said so themselves stay pieces. */
export const say = (frame: TemplateStringsArray, ...of: (string | number | Said)[]): Said => ({
  text: frame.reduce((text, piece, i) => {
    const gap = of[i - 1]!
    return `${text}${isSaid(gap) ? gap.text : gap}${piece}`
  }),
  says: {
    frame: frame.reduce((text, piece, i) => `${text}{${i - 1}}${piece}`),
    of: of.map((gap) => (isSaid(gap) ? gap.says : gap)),
  },
})

/** Nothing, where a piece of a sentence may be left out. */
export const unsaid: Said = { text: '', says: { frame: '', of: [] } }

/**
 * A sentence by a table of frames, and of words that fill gaps (“high”, “rail”); what the table lacks, as names do, stays as
 * it was said. Gaps may be used in any order, or twice.
 */
export const inWords = ({ frame, of }: Sentence, table: Readonly<Record<string, string>> = {}): string =>
  (table[frame] ?? frame).replace(/\{(\d+)\}/g, (whole, index: string) => {
    const gap = of[Number(index)]
    if (gap === undefined) return whole
    return typeof gap === 'object' ? inWords(gap, table) : (table[gap] ?? String(gap))
  })
