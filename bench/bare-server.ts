/** A Hono handler that gives the same bytes every time and does nothing else: what reading over HTTP is measured against. */
import { readFileSync } from 'node:fs'
import { serve } from '@hono/node-server'
import { Hono } from 'hono'

const bytes = readFileSync(process.argv[2]!, 'utf8')
const app = new Hono().get('/page', (c) => c.body(bytes, 200, { 'Content-Type': 'application/json' }))
serve({ fetch: app.fetch, port: Number(process.argv[3]), hostname: '127.0.0.1' }, () =>
  process.send?.({ ready: true }),
)
