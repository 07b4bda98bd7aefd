// When a single key is a command and when it is typing.

const typing = new Set(['text', 'search', 'number', 'email', 'url', 'tel', 'password'])

/** For useHotkeys: keys work everywhere but where they would be typed or would choose from a list. */
export const commandKeys = {
  useKey: true,
  enableOnFormTags: true as const,
  ignoreEventWhen: (event: KeyboardEvent): boolean => {
    const target = event.target
    if (target instanceof HTMLInputElement) return typing.has(target.type)
    return target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement
  },
}
