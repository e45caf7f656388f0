import { expect, test } from '@jest/globals'
import fc from 'fast-check'
import { Drafts, type Draft } from '../src/ui/drafts.ts'
import { someStorage } from './support/storage.ts'

const draft = (key: string, text: string, more: Partial<Draft> = {}): Draft => ({
  key,
  label: key,
  text,
  base: '',
  ...more,
})

test('what was typed is found again by the next tab, until it was saved or dropped', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom('a', 'b'), fc.string(), fc.constantFrom('set', 'drop', 'leave')), {
        maxLength: 20,
      }),
      (acts) => {
        const storage = someStorage()
        const drafts = new Drafts(storage)
        const expected = new Map<string, string>()
        for (const [key, text, what] of acts) {
          if (what === 'set') {
            drafts.set(draft(key, text))
            expected.set(key, text)
          } else if (what === 'drop') {
            drafts.drop(key)
            expected.delete(key)
          } else drafts.leave(key)
        }
        const next = new Drafts(storage)
        for (const key of ['a', 'b']) expect(next.read(key)?.text).toBe(expected.get(key))
      },
    ),
  )
})

test('saving all says which were refused, and a refused one stays', async () => {
  const drafts = new Drafts(someStorage())
  const saved: string[] = []
  const save = (key: string, isTaken: boolean) => () => {
    if (isTaken) {
      saved.push(key)
      drafts.drop(key)
    }
    return Promise.resolve(isTaken)
  }
  drafts.set(draft('one', 'x', { save: save('one', true) }))
  drafts.set(draft('two', 'y', { save: save('two', false) }))
  drafts.set(draft('three', 'z', { save: () => Promise.reject(new Error('away')) }))
  expect(await drafts.saveAll()).toEqual(['two', 'three'])
  expect([saved, drafts.all.get().map(({ key }) => key)]).toEqual([['one'], ['two', 'three']])
})

test('a browser without room loses nothing that is on the screen', () => {
  const drafts = new Drafts(someStorage(0))
  drafts.set(draft('one', 'text'))
  expect(drafts.all.get().map(({ text }) => text)).toEqual(['text'])
})

test.each(['nonsense', '{}', '[]', '{"text":5,"base":""}'])('%s in the storage is no draft', (json) => {
  const storage = someStorage()
  storage.setItem('gullyline.draft.one', json)
  expect(new Drafts(storage).read('one')).toBeUndefined()
})
