const opened = ref(false)

/** The list of entries the server refused. */
export function useRefusedDialog() {
  return { opened }
}
