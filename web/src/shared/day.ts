/** When something was changed, for people: 27 Nov 2026, 14:05. */
export const dayWords = (at: string): string =>
  new Date(at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })
/** To the second, where several may be of one minute. */
export const momentWords = (at: string): string =>
  new Date(at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'medium' })
