import type { Table } from '@root-board/core/formats'
import Papa from 'papaparse'

/** Cells that a spreadsheet would run as a formula get an apostrophe in front. */
export const csvText = (table: Table | { fields: string[]; data: (string | number)[][] }): string =>
  `${Papa.unparse(table, { escapeFormulae: true, newline: '\r\n' })}\r\n`
