/**
 * A lock file that says where each package is fetched from, at `registry`. Ours names no registry, and without addresses
 * npm asks for the whole history of every package before it fetches one version, a fifth of the time of an install or more.
 * The form of an address is common practice of registries; no standard has it. What has an address keeps it.
 */
export function withAddresses(lock, registry) {
  const base = registry.endsWith('/') ? registry : `${registry}/`
  const packages = Object.entries(lock.packages).map(([path, one]) => {
    // Our own workspaces have no digest; nothing is fetched for them.
    if (one.integrity === undefined || one.resolved !== undefined) return [path, one]
    const name = one.name ?? path.slice(path.lastIndexOf(FOLDER) + FOLDER.length)
    const file = `${name.split('/').at(-1)}-${one.version}.tgz`
    return [path, { ...one, resolved: `${base}${name}/-/${file}` }]
  })
  return { ...lock, packages: Object.fromEntries(packages) }
}

const FOLDER = 'node_modules/'
