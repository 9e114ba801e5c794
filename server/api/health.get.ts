export default defineEventHandler(() => ({ open: true }))
