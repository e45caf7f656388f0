import { defaultRegistry, runChecks, type CheckedSite, type PagePackage } from '@gullyline/core'
import { fileAndOptions } from './arguments.ts'
import { EXIT, type Exit, type Streams } from './outcome.ts'
import { readPackage } from './read-package.ts'

/** Prints findings, as lines or as JSON: `[{ rule, severity, nodeId, message, source }]`. */
export async function check(args: readonly string[], { out }: Streams): Promise<Exit> {
  const { file, values } = fileAndOptions(args, { json: { type: 'boolean' } }, 'check FILE [--json]')
  const given = await readPackage(file)
  const findings = runChecks(given.page, checkedSite(given), defaultRegistry)
  if (values.json) out(`${JSON.stringify(findings, undefined, 2)}\n`)
  else
    for (const { severity, rule, nodeId, message } of findings)
      out(`${severity} ${rule}${nodeId ? ` at ${nodeId}` : ''}: ${message}\n`)
  return findings.some((finding) => finding.severity === 'error') ? EXIT.findings : EXIT.done
}

/** Of other pages a package knows only that they exist, so links to places on them are not judged. */
function checkedSite({ title, description, look, paths, media, files = {} }: PagePackage): CheckedSite {
  const pages = Object.fromEntries(Object.keys(paths).map((id) => [id, undefined]))
  return { title, description, look, pages, pictures: media, files }
}
