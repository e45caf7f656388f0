/** Documents that are shown within the editor's own. */
import { expect, test } from '@jest/globals'
import { boxed } from '../src/ui/boxed.ts'

const SCREEN = { width: 400, height: 200 }
const box = (head: string, body: string) =>
  boxed(`<!DOCTYPE html><html lang="en"><head>${head}</head><body>${body}</body></html>`, SCREEN)

test('nothing that could run or load by itself is left of a hostile document', () => {
  const { page } = box(
    '<script>alert(1)</script><base href="//elsewhere.example/"><link rel="stylesheet" href="/x.css"><meta http-equiv="refresh" content="0;url=/x">',
    `<img src="x" onerror="alert(1)"><svg onload="alert(1)"><script>alert(1)</script></svg>
     <iframe srcdoc="<script>alert(1)</script>"></iframe><object data="x"></object><embed src="x">
     <p ONCLICK="alert(1)" onpointerdown="alert(1)">Words</p>`,
  )
  expect(page.querySelectorAll('script, base, link, meta, iframe, object, embed')).toHaveLength(0)
  const names = [...page.querySelectorAll('*')].flatMap((element) => element.getAttributeNames())
  expect(names).toEqual(['src'])
  expect(page.textContent).toContain('Words')
  expect(page.lang).toBe('en')
})

test('the stylesheet is taken out whole, and fonts, which only documents know, apart from it', () => {
  const { page, css, fonts } = box(
    '<style>@font-face{font-family:"A";src:url(/a.woff2)}p{color:red}</style><style>@font-face{font-family:"B";src:url(/b.woff2)}i{width:50vw}</style>',
    '<p>',
  )
  expect(page.querySelector('style')).toBeNull()
  expect(fonts).toBe(
    '@font-face{font-family:"A";src:url(/a.woff2)}@font-face{font-family:"B";src:url(/b.woff2)}',
  )
  expect(css).toBe(':host{all:initial}p{color:red}i{width:200px}')
})

test('of pictures the file for this screen is asked for', () => {
  const { page } = box(
    '',
    '<picture><source srcset="/a 400w" sizes="(width<600px) 100vw, 50vw"><img src="/a"></picture>',
  )
  expect(page.querySelector('source')!.sizes).toBe('400px')
})
