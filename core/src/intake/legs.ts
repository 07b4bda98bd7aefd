// Leg numbers as tables write them: 12; 1, 24, 36; 1–4; a dash where a package has no such leg.

const absent = /^(?:[-–—‑−.]+|n\/?a|none|no|x)?$/i
const most = 1000

/** The legs in a cell: none for a dash, undefined where it isn't a list of legs. */
export const legsIn = (text: string): number[] | undefined => {
  const plain = text
    .trim()
    .replace(/^(?:pins?|legs?|no\.?|#)\s*/i, '')
    .replace(/[.)]$/, '')
  if (absent.test(plain)) return []
  if (!/^\d/.test(plain)) return undefined
  const legs: number[] = []
  for (const piece of plain.split(/\s*(?:[,;/&+]|\band\b)\s*|\s+(?=\d)(?<!(?:to|[-–—])\s)/)) {
    if (piece === '') continue
    const match = /^(\d{1,4})(?:\s*(?:[-–—‑]|\.\.+|…|to)\s*(\d{1,4}))?$/.exec(piece)
    if (!match) return undefined
    const first = Number(match[1])
    const last = match[2] === undefined ? first : Number(match[2])
    if (Math.max(first, last) > most || Math.abs(last - first) > 200) return undefined
    const step = last < first ? -1 : 1
    for (let leg = first; leg !== last + step; leg += step) legs.push(leg)
  }
  return legs
}
