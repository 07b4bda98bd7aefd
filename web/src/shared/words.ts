// Small wordings that several pages use.

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
