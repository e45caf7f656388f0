/** A release on the disk: a list of what each address of the site shows. Visitors are answered from it. */
import { readFileSync, readlinkSync } from 'node:fs'
import { readdir, rename, rm, stat, symlink, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Manifest } from '@gullyline/core'
import { makeFolder } from '../http/make-folder.ts'
import { newId } from '../http/new-id.ts'
import { CONTENT, HOSTS, releasesFolder } from '../media/folders.ts'

/** The link that names the release which visitors see of a site begins so; the id of the site follows. */
const CURRENT = 'current-'
/** How a link is called until it takes the place of the current one. */
const NEXT = '.next-'
const MANIFEST = '.json'
const IS_MANIFEST = /^[a-z0-9]+\.json$/

/** The releases of all sites of a data folder, and the one that visitors see of each. */
export class Releases {
  readonly #folder: string

  constructor(dataDir: string) {
    this.#folder = releasesFolder(dataDir)
  }

  /** The id of the release that visitors see of a site; undefined before anything was published. Another server may have switched it. */
  current(siteId: string): string | undefined {
    try {
      const name = readlinkSync(join(this.#folder, CURRENT + siteId))
      return name.endsWith(MANIFEST) ? name.slice(0, -MANIFEST.length) : undefined
    } catch {
      return undefined
    }
  }

  /** What a release shows; undefined where there is no such release, or what it left can’t be read. */
  manifest(id: string): Manifest | undefined {
    try {
      return JSON.parse(readFileSync(join(this.#folder, id + MANIFEST), 'utf8')) as Manifest
    } catch {
      return undefined
    }
  }

  /** Writes a release. A release whose manifest is there is whole. */
  async write(id: string, manifest: Manifest): Promise<void> {
    await makeFolder(this.#folder)
    await this.#writeWhole(id + MANIFEST, manifest)
  }

  /** The ids of the releases that visitors see, of all sites. */
  async allCurrent(): Promise<string[]> {
    const names = (await readdir(this.#folder)).filter((name) => name.startsWith(CURRENT))
    return names.flatMap((name) => this.current(name.slice(CURRENT.length)) ?? [])
  }

  /** Points visitors of a site to a release in one step. */
  async show(siteId: string, id: string): Promise<void> {
    const next = join(this.#folder, NEXT + newId())
    await symlink(id + MANIFEST, next)
    // rename(2) replaces the old link in one step: no visitor ever finds none.
    await rename(next, join(this.#folder, CURRENT + siteId))
  }

  async remove(id: string): Promise<void> {
    await rm(join(this.#folder, id + MANIFEST), { force: true })
  }

  /** The ids of all releases, the newest first. */
  async list(): Promise<string[]> {
    const names = (await readdir(this.#folder)).filter((name) => IS_MANIFEST.test(name))
    const dated = await Promise.all(
      names.map(async (name) => ({ name, at: (await stat(join(this.#folder, name))).mtimeMs })),
    )
    return dated.sort((a, b) => b.at - a.at).map(({ name }) => name.slice(0, -MANIFEST.length))
  }

  /** Removes what servers that were killed left behind, and what versions before left: releases that were folders, the one link. */
  async removeLeftovers(): Promise<void> {
    for (const name of await readdir(this.#folder))
      if (!name.startsWith(CURRENT) && name !== CONTENT && name !== HOSTS && !IS_MANIFEST.test(name))
        await rm(join(this.#folder, name), { recursive: true, force: true })
  }

  async #writeWhole(name: string, value: unknown): Promise<void> {
    const file = join(this.#folder, name)
    const begun = join(this.#folder, NEXT + newId())
    try {
      await writeFile(begun, JSON.stringify(value), { mode: 0o600 })
      await rename(begun, file)
    } catch (error) {
      await rm(begun, { force: true })
      throw error
    }
  }
}
