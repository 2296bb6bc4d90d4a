/** Says that the server is up; does nothing else. */
export default defineEventHandler(() => ({ up: true }))
