// When a single key is a command and when it is typing.

const typing = new Set(['text', 'search', 'number', 'email', 'url', 'tel', 'password'])

/** Whether a key pressed there is typed, or chooses from a list. */
export const isTyping = ({ target }: KeyboardEvent): boolean =>
  target instanceof HTMLInputElement
    ? typing.has(target.type)
    : target instanceof HTMLTextAreaElement || target instanceof HTMLSelectElement

/** For useHotkeys: keys work everywhere but where they are typed. */
export const commandKeys = { useKey: true, enableOnFormTags: true as const, ignoreEventWhen: isTyping }
