/** Started by root in a folder that the database's user can't enter: its files go to /var/lib/gullyline, and stay found. */
import { existsSync, readFileSync, rmSync, statSync } from 'node:fs'
import { chmod, mkdir, mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals'
import mysql from 'mysql2/promise'
import { startMariadb } from '../../scripts/lib/mariadb.mjs'
import { freePort } from '../../scripts/lib/ports.mjs'

/** Starts on a folder, does something with the database, and stops. */
async function withDatabase<T>(folder: string, act: (db: mysql.Connection) => Promise<T>): Promise<T> {
  const database = await startMariadb(folder, await freePort())
  const db = await mysql.createConnection(database.url)
  try {
    return await act(db)
  } finally {
    await db.end()
    await database.stop()
  }
}
const write = (words: string) => async (db: mysql.Connection) => {
  await db.query('CREATE TABLE IF NOT EXISTS written (words TEXT)')
  await db.query('INSERT INTO written VALUES (?)', [words])
}
const read = async (db: mysql.Connection) => {
  const [rows] = await db.query<mysql.RowDataPacket[]>('SELECT words FROM written')
  return rows.map((row) => row.words as string)
}

const suite = process.getuid?.() === 0 ? describe : describe.skip
suite('a data folder below a folder that is closed to everybody else', () => {
  let closed: string
  let folder: string
  beforeEach(async () => {
    closed = await mkdtemp(join(tmpdir(), 'gullyline-closed-'))
    folder = join(closed, 'home', 'data', 'database')
    await mkdir(folder, { recursive: true })
  })
  afterEach(async () => {
    const noted = join(folder, 'location')
    if (existsSync(noted)) rmSync(readFileSync(noted, 'utf8').trim(), { recursive: true, force: true })
    await rm(closed, { recursive: true, force: true })
  })

  test('has its database elsewhere, closed to others as well, and finds it again at the next start', async () => {
    await chmod(closed, 0o700)
    await withDatabase(folder, write('before'))
    const elsewhere = readFileSync(join(folder, 'location'), 'utf8').trim()
    expect(elsewhere).toMatch(/^\/var\/lib\/gullyline\/[0-9a-f]{12}$/)
    expect(existsSync(join(folder, 'mysql'))).toBe(false)
    expect(statSync(join(elsewhere, 'mysql')).mode & 0o777).toBe(0o700)
    expect(statSync(elsewhere).mode & 0o077).toBe(0)
    expect(statSync(join(elsewhere, 'mysql')).uid).not.toBe(0)
    // The folder that was closed stays closed, and the password stays in it.
    expect(statSync(closed).mode & 0o777).toBe(0o700)
    expect(existsSync(join(elsewhere, 'password'))).toBe(false)
    expect(await withDatabase(folder, read)).toEqual(['before'])
  })

  test('that was open before takes its data along', async () => {
    await chmod(closed, 0o711)
    await withDatabase(folder, write('while it was open'))
    expect(existsSync(join(folder, 'location'))).toBe(false)
    await chmod(closed, 0o700)
    expect(await withDatabase(folder, read)).toEqual(['while it was open'])
    expect(existsSync(join(folder, 'location'))).toBe(true)
  })
})
