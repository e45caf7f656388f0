/** MariaDB's wildcards, taken for themselves ("LIKE": the escape character is a backslash). */
export function escapeLike(words: string): string {
  return words.replace(/[\\%_]/g, (sign) => `\\${sign}`)
}
