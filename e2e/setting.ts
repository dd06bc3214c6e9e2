/** Where the tested server listens. */
export const PORT = 4791
