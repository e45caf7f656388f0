/** The database that comes with the application, and what nobody gets from it. */
import { execFileSync } from 'node:child_process'
import { readFileSync, statSync } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, test } from '@jest/globals'
import mysql from 'mysql2/promise'
import { startMariadb, type Database } from '../../scripts/lib/mariadb.mjs'
import { freePort } from '../../scripts/lib/ports.mjs'

let home: string
let folder: string
let port: number
let database: Database
let db: mysql.Connection
beforeAll(async () => {
  home = await mkdtemp(join(tmpdir(), 'gullyline-private-'))
  folder = join(home, 'database')
  port = await freePort()
  database = await startMariadb(folder, port)
  db = await mysql.createConnection(database.url)
})
afterAll(async () => {
  await db.end()
  await database.stop()
  await rm(home, { recursive: true, force: true })
})

const rows = async (sql: string) => (await db.query<mysql.RowDataPacket[]>(sql))[0]

test('the application’s account has its own database and no more', async () => {
  const grants = (await rows('SHOW GRANTS')).map((row) => String(Object.values(row)[0]))
  expect(grants).toHaveLength(2)
  expect(grants[0]).toMatch(/^GRANT USAGE ON \*\.\* TO `gullyline`@`127\.0\.0\.1`/)
  expect(grants[1]).toMatch(
    /^GRANT SELECT, INSERT, UPDATE, DELETE, CREATE, DROP, REFERENCES, INDEX, ALTER ON `gullyline`\.\* /,
  )
  await expect(db.query('SELECT * FROM mysql.global_priv')).rejects.toThrow(/denied/)
  await expect(db.query('CREATE DATABASE another')).rejects.toThrow(/denied/)
  await expect(db.query("CREATE USER x@'%'")).rejects.toThrow(/denied/)
})

test.each([
  ['root', ''],
  ['root', 'root'],
  ['mysql', ''],
  ['', ''],
  ['gullyline', ''],
  ['gullyline', 'gullyline'],
])('nobody gets in over TCP as “%s” with the password “%s”', async (user, password) => {
  await expect(mysql.createConnection({ host: '127.0.0.1', port, user, password })).rejects.toThrow(
    /denied|not allowed/,
  )
})

test('no statement reads or writes a file', async () => {
  const [value] = await rows('SELECT @@secure_file_priv AS dir, @@local_infile AS local')
  expect(value).toEqual({ dir: expect.stringMatching(/\/no-files\/$/), local: 0 })
  await expect(db.query("SELECT 'x' INTO OUTFILE '/tmp/gullyline-out'")).rejects.toThrow(
    /denied|secure-file-priv/,
  )
  expect(await rows("SELECT LOAD_FILE('/etc/passwd') AS it")).toEqual([{ it: null }])
})

test('it listens on loopback alone, never runs as root, and its files are closed to others', () => {
  const status = readFileSync(`/proc/${database.pid}/status`, 'utf8')
  expect(/^Uid:\s+(\d+)/m.exec(status)![1]).not.toBe('0')
  expect(statSync(join(folder, 'mysql')).mode & 0o077).toBe(0)
  expect(statSync(join(folder, 'password')).mode & 0o077).toBe(0)
  const listening = readFileSync('/proc/net/tcp', 'utf8') + readFileSync('/proc/net/tcp6', 'utf8')
  const hex = port.toString(16).toUpperCase().padStart(4, '0')
  const addresses = [...listening.matchAll(new RegExp(`([0-9A-F]+):${hex} [0-9A-F]+:0000 0A`, 'g'))]
  expect(addresses.map(([, address]) => address)).toEqual(['0100007F'])
})

test('its password stands in no argument of a process', () => {
  const password = new URL(database.url).password
  expect(password.length).toBeGreaterThan(30)
  expect(execFileSync('ps', ['-eo', 'args'], { encoding: 'utf8' })).not.toContain(password)
  expect(readFileSync(`/proc/${database.pid}/environ`, 'utf8').includes(password)).toBe(false)
})
