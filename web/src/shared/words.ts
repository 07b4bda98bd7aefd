// Small wordings that several pages use.

/** Seconds as a builder would say them: “4 h 20 min”, “37 days”. */
export const durationWords = (seconds: number): string => {
  if (!Number.isFinite(seconds)) return 'no end'
  const days = seconds / 86400
  if (days >= 2) return `${days >= 100 ? Math.round(days) : Number(days.toPrecision(2))} days`
  const hours = Math.floor(seconds / 3600)
  const minutes = Math.round((seconds % 3600) / 60)
  return hours > 0 ? `${hours} h ${minutes} min` : `${minutes} min`
}

export const euro = (value: number): string => `€ ${value.toFixed(2)}`

/** Hands a text to the browser as a file. */
export const download = (name: string, text: string, type: string): void => {
  const url = URL.createObjectURL(new Blob([text], { type: `${type};charset=utf-8` }))
  const link = document.createElement('a')
  link.href = url
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(url), 1000)
}

export const fileName = (project: string, ending: string): string =>
  `${
    project
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'project'
  }${ending}`
