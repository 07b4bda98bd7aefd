/** A fault with its place before it, told once. */
export const faultWords = ({ path, message }: { path: string; message: string }): string =>
  path === '' || message.startsWith(path) ? message : `${path}: ${message}`
