/**
 * What the first page will ask the server for, asked while its scripts are on their way: the answers are there when
 * it begins. Each is taken once, and by that page alone.
 */
/** How many designs come with their pictures at first. */
export const FIRST_DRAWN = 16
const PATIENCE_MS = 10_000
const asked = new Map<string, Promise<Response>>()

/** What the page at the address asks for first. */
function wantedAt(path: string): string[] {
  const design = /^\/designs\/(\d+)$/.exec(path)
  if (design) return [`/api/designs/${design[1]}`, '/api/catalogue']
  return path === '/' ? [`/api/designs?binned=false&drawn=${FIRST_DRAWN}`] : []
}

/** Asks for it; of who was never here only who it is, since all else may be refused. */
export function askEarly() {
  const known = document.cookie.includes('csrftoken=')
  for (const path of ['/api/session', ...(known ? wantedAt(location.pathname) : [])]) {
    const answer = fetch(path)
    // whoever takes it hears of what went wrong
    answer.catch(() => {})
    asked.set(path, answer)
  }
  setTimeout(() => asked.clear(), PATIENCE_MS)
}

/** As `fetch`, with the answer to what was asked for early. */
export function fetchOnce(request: Request): Promise<Response> {
  const { pathname, search } = new URL(request.url)
  const early = request.method === 'GET' ? asked.get(pathname + search) : undefined
  asked.delete(pathname + search)
  // what was refused then may be granted now: somebody has signed in meanwhile
  return early ? early.then((answer) => (answer.ok ? answer : fetch(request))) : fetch(request)
}
