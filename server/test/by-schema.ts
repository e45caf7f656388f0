/** Judges XML by schemas of others (`data`). */
import { readFileSync } from 'node:fs'
import { validateXML } from 'xmllint-wasm'

/** Returns what is wrong with a document: nothing where the schema allows it. */
export async function faultsBySchema(contents: string, schema: string): Promise<readonly string[]> {
  const { errors } = await validateXML({
    xml: [{ fileName: 'judged.xml', contents }],
    schema: [
      { fileName: schema, contents: readFileSync(new URL(`data/${schema}`, import.meta.url), 'utf8') },
    ],
  })
  return errors.map(({ message }) => message)
}
