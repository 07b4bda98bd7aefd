// Quantities that read better in words than with prefixes.

/** Seconds as a builder would say them: “4 h 20 min”, “37 days”. */
export const durationWords = (seconds: number): string => {
  if (!Number.isFinite(seconds)) return 'no end'
  const days = seconds / 86400
  if (days >= 2) return `${days >= 100 ? Math.round(days) : Number(days.toPrecision(2))} days`
  const minutes = Math.round(seconds / 60)
  return minutes >= 60 ? `${Math.floor(minutes / 60)} h ${minutes % 60} min` : `${minutes} min`
}

export const euro = (value: number): string => `€ ${value.toFixed(2)}`
