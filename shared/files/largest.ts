/** The largest build file that is taken in, bytes; what the application allows one build to hold stays below it. Our choice. */
export const mostFileBytes = 256_000_000
export const overLargest = `This file is over ${mostFileBytes / 1e6} MB, more than any build.`
