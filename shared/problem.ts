import { z } from './schema'

/** An error of the server as a JSON problem (RFC 9457). */
export const httpProblemSchema = z.looseObject({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.optional(z.string()),
})
export type HttpProblem = z.infer<typeof httpProblemSchema>
