/** The largest file that can be added to the library, in bytes. */
export const MOST_BYTES = 40 * 1024 * 1024
/** Most pixels of a picture once it is opened: twice what a good camera makes. With 16 bits a channel they take 400 MB. */
export const MOST_PIXELS = 50_000_000
/** The longest side in px: wider than any panorama that a screen shows whole. */
export const LONGEST_SIDE = 20_000
/** The largest package that is imported, in bytes. */
export const MOST_PACKAGE_BYTES = 1024 ** 3
