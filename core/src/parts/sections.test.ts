// Every field of every kind stands in one section of its sheet, and none is forgotten when one is added.

import { servesOf, sheetSections } from '.'
import type { PartKind } from './library'
import { schemas } from './read'

// Kept by the program: docs/formats.md, “Every part”.
const kept = ['format', 'kind', 'assumed', 'copiedFrom']

test.each(Object.keys(schemas) as PartKind[])('%s: each field once', (kind) => {
  const fields = sheetSections(kind).flatMap((s) => s.fields)
  expect([...fields, ...kept].sort()).toEqual(Object.keys(schemas[kind].fields).sort())
})

test('as a sheet tells it: what a regulator is, what it may never see, what it runs on, and its package at the end', () => {
  expect(sheetSections('regulator').map((s) => s.title)).toEqual([
    'What it is',
    'What it may never see',
    'What it runs on',
    'What it draws',
    'Legs and what they can do',
    'What it needs beside it',
    'Package',
  ])
  expect(sheetSections('regulator')[1]!.fields).toEqual(['inputAbsolute', 'junctionMax'])
})

test('what a field is asked for', () => {
  expect([
    servesOf('chip', 'supply.recommended'),
    servesOf('led', 'forward'),
    servesOf('chip', 'name'),
  ]).toEqual([['power'], ['drive'], []])
})
