// Talking to the server. A refusal comes as a Problem with the faults named; a silent server as ServerAway.

import type { Design } from '@root-board/core/design'
import type { Part } from '@root-board/core/parts'

export interface ProjectLine {
  id: string
  name: string
  chip?: string
  devices: number
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

export class Problem extends Error {
  override name = 'Problem'
  constructor(
    readonly status: number,
    title: string,
    readonly faults: { path: string; message: string }[],
    readonly stored?: StoredProject,
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
  const problem = (answer ?? {}) as { title?: string; faults?: Problem['faults']; stored?: StoredProject }
  throw new Problem(
    response.status,
    problem.title ?? `The server answered ${response.status}`,
    problem.faults ?? [],
    problem.stored,
  )
}

export const api = {
  projects: () => ask<ProjectLine[]>('/projects'),
  project: (id: string) => ask<StoredProject>(`/projects/${id}`),
  create: (design: unknown) => ask<StoredProject>('/projects', 'POST', design),
  save: (id: string, version: number, design: Design) =>
    ask<StoredProject>(`/projects/${id}`, 'PUT', design, { 'If-Match': `"${version}"` }),
  remove: (id: string) => ask<undefined>(`/projects/${id}`, 'DELETE'),
  restore: (id: string) => ask<StoredProject>(`/projects/${id}/restore`, 'POST'),
  parts: () => ask<Part[]>('/parts'),
  addPart: (part: unknown) => ask<Part>('/parts', 'POST', part),
}
