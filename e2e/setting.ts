/** Where the tested server listens. */
export const PORT = Number(process.env.ORNATE_PHASOR_TEST_PORT ?? 4791)
