// Quantities that read better in words than with prefixes.

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
