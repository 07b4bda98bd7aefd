// The one list of everything that can change a design.

import type { Design } from '../types'
import type { EditDefinition } from './define'
import { needsEdits } from './needs'
import { planningEdits } from './planning'

const definitions = { ...needsEdits, ...planningEdits }
type Definitions = typeof definitions
export type EditKind = keyof Definitions
type ArgsOf<K extends EditKind> = Definitions[K] extends EditDefinition<infer A> ? A : never

/** Any edit, as plain data. */
export type Edit = { [K in EditKind]: { kind: K } & ArgsOf<K> }[EditKind]

const definitionOf = (edit: Edit) => definitions[edit.kind] as EditDefinition<Edit>

export const editLabel = (edit: Edit, design: Design): string => definitionOf(edit).label(edit, design)
export const applyEdit = (design: Design, edit: Edit): Design => definitionOf(edit).apply(design, edit)
export const applyEdits = (design: Design, edits: readonly Edit[]): Design => edits.reduce(applyEdit, design)
