import { ApiProblem, defineApi } from '../utils/api'

/** Any other address below /api: a clear answer, not the page. */
export default defineApi(async () => {
  throw new ApiProblem(404, 'There is nothing at this address')
})
