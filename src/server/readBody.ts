import type { z } from 'zod'

/**
 * A request's body as JSON, at most `maxBytes` of it: *too-large* is known before more is held, *bad* is no JSON or
 * not by the schema.
 */
type JsonRead<T> = { kind: 'read'; value: T } | { kind: 'too-large' } | { kind: 'bad' }

/** A request's body, at most `maxBytes` of it; null when it is larger, which is known before more is held. */
export async function readBytes(request: Request, maxBytes: number): Promise<Buffer | null> {
  if (Number(request.headers.get('content-length') ?? 0) > maxBytes) return null
  const chunks: Uint8Array[] = []
  let bytes = 0
  for (const reader = request.body?.getReader(); reader;) {
    const { done, value } = await reader.read()
    if (done) break
    bytes += value.byteLength
    if (bytes > maxBytes) {
      await reader.cancel()
      return null
    }
    chunks.push(value)
  }
  return Buffer.concat(chunks)
}

async function readJson<T>(request: Request, schema: z.ZodType<T>, maxBytes: number): Promise<JsonRead<T>> {
  const body = await readBytes(request, maxBytes)
  if (body === null) return { kind: 'too-large' }
  try {
    const parsed = schema.safeParse(JSON.parse(body.toString('utf8')))
    return parsed.success ? { kind: 'read', value: parsed.data } : { kind: 'bad' }
  } catch {
    return { kind: 'bad' }
  }
}

/**
 * Answers a request whose body is JSON by a schema: 413 when it is larger than `maxBytes`, 400 when it is anything
 * else, `handle`'s answer otherwise.
 */
export async function answerJson<T>(
  request: Request,
  schema: z.ZodType<T>,
  maxBytes: number,
  handle: (value: T) => Response | Promise<Response>,
): Promise<Response> {
  const read = await readJson(request, schema, maxBytes)
  switch (read.kind) {
    case 'read':
      return handle(read.value)
    case 'too-large':
      return new Response(null, { status: 413 })
    case 'bad':
      return new Response(null, { status: 400 })
  }
}
