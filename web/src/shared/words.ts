// Small wordings that several pages use.

/** Hands a text to the browser as a file. */
export const download = (name: string, text: string, type: string): void =>
  hand(name, new Blob([text], { type: `${type};charset=utf-8` }))

/** Hands anything to the browser as a file. */
export const hand = (name: string, content: Blob): void => {
  const url = URL.createObjectURL(content)
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
