/** The largest build file that is taken in, bytes; what the application allows one build to hold stays below it. Our choice. */
export const mostFileBytes = 256_000_000
export const overLargest = `This file is over ${mostFileBytes / 1e6} MB, more than any build.`
/** The largest log of a flight that is read and kept, bytes, compressed or not: two hours at 400 rows a second. Our choice. */
export const mostLogBytes = 64_000_000
/** The largest archive that is taken in, bytes. Our choice: more than such a data folder will ever hold. */
export const mostArchiveBytes = 1_000_000_000_000
