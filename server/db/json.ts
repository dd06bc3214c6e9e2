import type { ZodMiniType } from 'zod/mini'

/** JSON as the database has kept it; `null` where it cannot be read, or is not what it should be. */
export function tryJson<T>(text: unknown, schema: ZodMiniType<T>): T | null {
  try {
    const parsed = schema.safeParse(JSON.parse(String(text)))
    return parsed.success ? parsed.data : null
  } catch {
    return null
  }
}
