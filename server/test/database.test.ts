import { afterAll, beforeAll, expect, test } from '@jest/globals'
import { startTestServer, type TestServer } from './with-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.close())

test('the migrations make exactly the tables that the rows describe', async () => {
  const drift = await server.services.db.driver.createSchemaBuilder().log()
  expect(drift.upQueries.map((query) => query.query)).toEqual([])
})

test('every migration can be undone and done again', async () => {
  const { db } = server.services
  for (const _migration of db.migrations) await db.undoLastMigration()
  const tables = await db.query<Record<string, string>[]>('SHOW TABLES')
  expect(tables.flatMap((row) => Object.values(row)).filter((name) => name !== 'migrations')).toEqual([])
  await db.runMigrations()
  expect((await db.driver.createSchemaBuilder().log()).upQueries).toEqual([])
})
