/** The largest file that can be added to the library, in bytes. */
export const MOST_BYTES = 40 * 1024 * 1024
