const opened = ref(false)

/** The drawer of calculators under `K`. */
export function useReckoner() {
  return { opened }
}
