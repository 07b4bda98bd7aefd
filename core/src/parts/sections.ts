// The fields of a part in the order in which a data sheet tells them, so that one goes through the sheet once.

import { formAt } from './form'
import type { PartKind } from './library'

export interface SheetSection {
  title: string
  /** Names of the part’s own fields. */
  fields: string[]
}

/** What the program keeps itself. */
const kept = new Set(['format', 'kind', 'assumed', 'copiedFrom'])

const order: [title: string, fields: string][] = [
  [
    'What it is',
    'id name maker description sheet price keywords family group sort colour gauge topology converts series chip',
  ],
  [
    'What it may never see',
    'supplyAbsolute inputAbsolute currentAbsolute stands reverse gateVoltage breaking insulation junctionMax',
  ],
  [
    'What it runs on',
    'supply temperature input inputRecommended usb logic regulator voltage output current unasked waits ratedAt trips derating inputCurrent backwards dropout ripple plug takes barrel jack polarity capacity resistance discharge selfDischarge cold worn rechargeable joins charging protection full setting ends headroom efficiency',
  ],
  ['What it draws', 'modes quiescent back power drives'],
  [
    'Inputs and outputs',
    'io limits pinCurrent high low rate threshold channel gain saturation baseEmitter gateCapacitance drainCapacitance gateLeakage leakage forward contacts rows asks',
  ],
  [
    'Clock',
    'frequencyLimits clockSources clock frequency loadCapacitance motional shunt ageing capacitorsInside',
  ],
  ['Values', 'from to tolerance esr'],
  ['Legs and what they can do', 'terminals legs headers pins units routing matrix radio'],
  ['How it is wired', 'wirings planChooses latch links variants expansion addresses blocks loads'],
  ['Program and start-up', 'startUp memory programming configuration'],
  ['What it needs beside it', 'support inputCapacitor outputCapacitor'],
  ['Package', 'package length width height diameter'],
  ['What can hurt', 'cautions'],
]

/** The sections of a kind of part, those that have anything in them. */
export const sheetSections = (kind: PartKind): SheetSection[] => {
  const form = formAt(kind, [], {})
  const own = new Set(form?.is === 'group' ? form.fields.map((f) => f.name) : [])
  return order.flatMap(([title, names]) => {
    const fields = names.split(' ').filter((name) => own.has(name) && !kept.has(name))
    return fields.length > 0 ? [{ title, fields }] : []
  })
}
