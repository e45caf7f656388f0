/** docs/help.md, made of the topics that the Help screen shows. */
import { COMMAND_IDS, keysOf, type CommandId } from '../web/src/editor/commands/command-list.ts'
import { HELP_TOPICS, piecesOf } from '../web/src/help/topics.ts'

/** The topics as Markdown, with the keys of every command. */
export function helpText(): string {
  const topics = HELP_TOPICS.map(({ title, steps }) => {
    const lines = steps.map((step, i) => `${i + 1}. ${withKeys(step)}`)
    return `## ${title}\n\n${lines.join('\n')}\n`
  })
  const keys = COMMAND_IDS.filter((id) => keysOf(id).keys !== '').map(
    (id) => `- ${keysOf(id).title}: \`${keysOf(id).keys}\``,
  )
  return `# Help\n\n${topics.join('\n')}\n## All keys of the editor\n\n${keys.join('\n')}\n`
}

function withKeys(step: string): string {
  return piecesOf(step)
    .map((piece) => (typeof piece === 'string' ? piece : `\`${keysOf(piece.command as CommandId).keys}\``))
    .join('')
}
