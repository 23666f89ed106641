/** An answer that was not what was asked for, in words for a person. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
    readonly details: Record<string, unknown> = {},
  ) {
    super(message)
  }
}

let shut: () => void = () => undefined

/** What is done when the server wants somebody to sign in. */
export function whenShut(act: () => void) {
  shut = act
}

function token(): string {
  return /(?:^|; )mordant_token=([^;]+)/.exec(document.cookie)?.[1] ?? ''
}

async function failure(response: Response): Promise<ApiError> {
  const body: Record<string, unknown> = await response.json().catch(() => ({}))
  const said = body.words ?? body.error
  const words = typeof said === 'string' ? said : `the server answered ${response.status}`
  return new ApiError(response.status, words, body)
}

/**
 * One request to the server; a body is sent as JSON, a file as it is.
 *
 * @throws ApiError when it is refused, or when no server answers (status 0)
 */
export async function send(method: string, path: string, body?: unknown, signal?: AbortSignal): Promise<Response> {
  let response: Response
  try {
    response = await fetch(`/api${path}`, {
      method,
      signal,
      headers: { 'content-type': body instanceof Blob ? 'application/octet-stream' : 'application/json', 'x-mordant-token': token() },
      body: body === undefined || body instanceof Blob ? body : JSON.stringify(body),
    })
  } catch (error) {
    if (signal?.aborted) throw error
    throw new ApiError(0, 'the server does not answer; what you did last is kept here until it does')
  }
  if (response.ok) return response
  const failed = await failure(response)
  if (failed.status === 401 && failed.details.sign_in) shut()
  throw failed
}

export async function getJson<T>(path: string): Promise<T> {
  return (await send('GET', path)).json() as Promise<T>
}

export async function sendJson<T>(method: string, path: string, body?: unknown): Promise<T> {
  return (await send(method, path, body)).json() as Promise<T>
}
