// Talking to the server. A refusal comes as a Problem with the faults named; a silent server as ServerAway.

import type { Design } from '@root-board/core/design'
import type { Part } from '@root-board/core/parts'

export interface ProjectLine {
  id: string
  name: string
  chip?: string
  devices: number
  /** What the builder wrote about it. */
  notes?: string
  sample: boolean
  changedAt: string
}
export interface StoredProject {
  id: string
  design: Design
  version: number
  sample: boolean
  changedAt: string
}

export interface StoredPart {
  id: string
  /** As it was written, before assumptions are put in. */
  file: Record<string, unknown>
  part: Part
  version: number
  changedAt: string
}
export interface OwnParts {
  parts: StoredPart[]
  /** Kept, but not readable by this version of the program. */
  unreadable: { id: string; file: unknown; faults: { path: string; message: string }[] }[]
}
export interface Uses {
  projects: { id: string; name: string }[]
  parts: { id: string; name: string }[]
}
export interface DrawerLine {
  part: string
  count: number
  place: string
  since: string
}
export type Take = 'mine' | 'theirs' | 'both'

export class Problem extends Error {
  override name = 'Problem'
  constructor(
    readonly status: number,
    title: string,
    readonly faults: { path: string; message: string }[],
    readonly stored?: StoredProject,
    /** Parts of one’s own that a brought library would replace. */
    readonly clashes: StoredPart[] = [],
  ) {
    super(title)
  }
}
export class ServerAway extends Error {
  override name = 'ServerAway'
}

const ask = async <T>(
  path: string,
  method = 'GET',
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<T> => {
  let response: Response
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: body === undefined ? headers : { 'Content-Type': 'application/json', ...headers },
      body: body === undefined ? undefined : JSON.stringify(body),
    })
  } catch {
    throw new ServerAway('The server does not answer')
  }
  if (response.status === 204) return undefined as T
  const answer: unknown = await response.json().catch(() => undefined)
  if (response.ok) return answer as T
  const problem = (answer ?? {}) as {
    title?: string
    faults?: Problem['faults']
    stored?: StoredProject
    clashes?: StoredPart[]
  }
  throw new Problem(
    response.status,
    problem.title ?? `The server answered ${response.status}`,
    problem.faults ?? [],
    problem.stored,
    problem.clashes,
  )
}

export const api = {
  projects: () => ask<ProjectLine[]>('/projects'),
  /** Those put away. */
  away: () => ask<ProjectLine[]>('/projects/away'),
  project: (id: string) => ask<StoredProject>(`/projects/${id}`),
  create: (design: unknown) => ask<StoredProject>('/projects', 'POST', design),
  save: (id: string, version: number, design: Design) =>
    ask<StoredProject>(`/projects/${id}`, 'PUT', design, { 'If-Match': `"${version}"` }),
  remove: (id: string) => ask<undefined>(`/projects/${id}`, 'DELETE'),
  restore: (id: string) => ask<StoredProject>(`/projects/${id}/restore`, 'POST'),
  parts: () => ask<Part[]>('/parts'),
  ownParts: () => ask<OwnParts>('/parts/own'),
  addPart: (part: unknown) => ask<StoredPart>('/parts', 'POST', part),
  savePart: (id: string, version: number, part: unknown) =>
    ask<StoredPart>(`/parts/${encodeURIComponent(id)}`, 'PUT', part, { 'If-Match': `"${version}"` }),
  removePart: (id: string) => ask<undefined>(`/parts/${encodeURIComponent(id)}`, 'DELETE'),
  restorePart: (id: string) => ask<StoredPart>(`/parts/${encodeURIComponent(id)}/restore`, 'POST'),
  usesOf: (id: string) => ask<Uses>(`/parts/${encodeURIComponent(id)}/uses`),
  takeLibrary: (parts: unknown[], choices: Record<string, Take>) =>
    ask<{ taken: string[] }>('/parts/library', 'POST', { format: 1, parts, choices }),
  drawer: () => ask<DrawerLine[]>('/drawer'),
  setDrawer: (part: string, count: number, place: string) =>
    ask<DrawerLine[]>(`/drawer/${encodeURIComponent(part)}`, 'PUT', { count, place }),
}
