const opened = ref(false)

/** The list of keys under `?`. */
export function useKeysDialog() {
  return { opened }
}
