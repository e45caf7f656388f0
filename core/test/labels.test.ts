/** What the interface shows of kinds, settings, patterns and templates, in the words that WCAG and the trade use. */
import { expect, test } from '@jest/globals'
import { defaultRegistry as registry } from '../src/blocks/default-registry.ts'
import type { FieldSchema } from '../src/kit/fields.ts'
import { createStarters } from '../src/blocks/starters.ts'
import { LAYOUTS } from '../src/site/layouts.ts'
import { TEMPLATES } from '../src/site/templates.ts'
import { oldLabelsAmong } from './old-labels.ts'

const settingLabels = (fields: { readonly properties: Readonly<Record<string, FieldSchema>> }): string[] =>
  Object.values(fields.properties).flatMap(({ title, words }) => [title, ...Object.values(words ?? {})])

test('no kind, setting, choice, pattern, layout or template has a label that was replaced', () => {
  const labels = [
    ...[...registry.kinds.values()].flatMap((kind) => [
      kind.title,
      kind.plural,
      kind.about,
      ...Object.values(kind.slots).map((slot) => slot.title),
      ...[kind.content, kind.look, kind.arrangement].flatMap(settingLabels),
    ]),
    ...createStarters(registry).flatMap(({ title, about }) => [title, about]),
    ...Object.values(LAYOUTS).flatMap(({ title, about, fields, slots }) => [
      title,
      about,
      ...fields.map((field) => field.title),
      ...Object.values(slots),
    ]),
    ...TEMPLATES.flatMap(({ title, about }) => [title, about]),
  ]
  expect(labels.length).toBeGreaterThan(300)
  expect(oldLabelsAmong(labels)).toEqual([])
})

test('every title begins with a capital and is no clause', () => {
  const titles = [...registry.kinds.values()].flatMap((kind) => [
    kind.title,
    ...[kind.content, kind.look, kind.arrangement].flatMap((fields) =>
      Object.values(fields.properties).map((field) => field.title),
    ),
  ])
  for (const title of titles) {
    expect(title).toMatch(/^[A-Z]/)
    expect(title.split(' ').length).toBeLessThanOrEqual(5)
    expect(title).not.toMatch(/^(What|Where|Which|How|Who) /)
  }
})
