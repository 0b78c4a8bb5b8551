/** For tests: a browser's store with nothing in it. */
export function emptyStore(): Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'> {
  const kept = new Map<string, string>()
  return {
    getItem: (key) => kept.get(key) ?? null,
    setItem: (key, text) => void kept.set(key, text),
    removeItem: (key) => void kept.delete(key),
    key: (place) => [...kept.keys()][place] ?? null,
    get length() {
      return kept.size
    },
  }
}
