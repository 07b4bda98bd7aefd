// Talking to the server. A refusal comes as a Problem with the faults named; a silent server as ServerAway.

import type {
  Brought,
  CopyContent,
  CopyLine,
  CopyList,
  DrawerLine,
  OwnParts,
  ProblemBody,
  ProjectLine,
  StoredPart,
  StoredProject,
  Take,
  Uses,
} from '@root-board/core/api'
import type { Design } from '@root-board/core/design'
import type { Part } from '@root-board/core/parts'

export type * from '@root-board/core/api'

export class Problem extends Error {
  override name = 'Problem'
  constructor(
    readonly status: number,
    title: string,
    readonly faults: { path: string; message: string }[],
    readonly stored?: StoredProject,
    /** Parts of one’s own that a brought library would replace. */
    readonly clashes: StoredPart[] = [],
    readonly held?: ProblemBody['held'],
  ) {
    super(title)
  }
}
export class ServerAway extends Error {
  override name = 'ServerAway'
}

/** A browser carries no more than 64 kB for pages that are gone. */
const mostKeptAlive = 60_000

const ask = async <T>(
  path: string,
  method = 'GET',
  body?: unknown,
  headers: Record<string, string> = {},
): Promise<T> => {
  const text = body === undefined ? undefined : JSON.stringify(body)
  let response: Response
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: body === undefined ? headers : { 'Content-Type': 'application/json', ...headers },
      body: text,
      // A save outlives the page that is left while it is on its way.
      keepalive: method === 'PUT' && text !== undefined && new Blob([text]).size < mostKeptAlive,
    })
  } catch {
    throw new ServerAway('The server does not answer')
  }
  if (response.status === 204) return undefined as T
  const answer: unknown = await response.json().catch(() => undefined)
  if (response.ok) return answer as T
  const problem = (answer ?? {}) as Partial<ProblemBody>
  throw new Problem(
    response.status,
    problem.title ?? `The server answered ${response.status}`,
    problem.faults ?? [],
    problem.stored as StoredProject | undefined,
    problem.clashes,
    problem.held,
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
  /** Throws out for good what was put away: one project, or all of them. */
  throwOut: (id?: string) => ask<unknown>(`/projects/away${id === undefined ? '' : `/${id}`}`, 'DELETE'),
  parts: () => ask<Part[]>('/parts'),
  ownParts: () => ask<OwnParts>('/parts/own'),
  addPart: (part: unknown) => ask<StoredPart>('/parts', 'POST', part),
  savePart: (id: string, version: number, part: unknown) =>
    ask<StoredPart>(`/parts/${encodeURIComponent(id)}`, 'PUT', part, { 'If-Match': `"${version}"` }),
  removePart: (id: string) => ask<undefined>(`/parts/${encodeURIComponent(id)}`, 'DELETE'),
  restorePart: (id: string) => ask<StoredPart>(`/parts/${encodeURIComponent(id)}/restore`, 'POST'),
  partsAway: () => ask<{ id: string; name: string }[]>('/parts/away'),
  throwOutPart: (id?: string) =>
    ask<unknown>(`/parts/away${id === undefined ? '' : `/${encodeURIComponent(id)}`}`, 'DELETE'),
  usesOf: (id: string) => ask<Uses>(`/parts/${encodeURIComponent(id)}/uses`),
  takeLibrary: (parts: unknown[], choices: Record<string, Take>) =>
    ask<{ taken: string[] }>('/parts/library', 'POST', { format: 1, parts, choices }),
  drawer: () => ask<DrawerLine[]>('/drawer'),
  setDrawer: (part: string, count: number, place: string) =>
    ask<DrawerLine[]>(`/drawer/${encodeURIComponent(part)}`, 'PUT', { count, place }),
  copies: () => ask<CopyList>('/copies'),
  makeCopy: () => ask<CopyLine>('/copies', 'POST'),
  copy: (name: string) => ask<CopyContent>(`/copies/${name}`),
  bringCopyBack: (name: string) => ask<{ before: CopyLine }>(`/copies/${name}/bring-back`, 'POST'),
  bringEverything: (file: unknown) => ask<Brought>('/everything', 'POST', file),
}
