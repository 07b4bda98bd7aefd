// What the cards are drawn with: black and grey on white, by day and by lamp.

export const ink = '#1f1c17'
export const pencil = '#5f574a'

/** Cut where it would run out of the card; a short last word, which tells “Probe 1” from its like, stays. */
export const fit = (text: string, letters: number): string => {
  if (text.length <= letters) return text
  const [end = ''] = / \S{1,5}$/.exec(text) ?? []
  return `${text.slice(0, letters - 1 - end.length)}…${end}`
}
