/** Bytes that one file of an archive, and an archive with all that lies in it, may unpack to; and how many files. */
export const ENTRY_BYTES_MOST = 64 * 1024 * 1024
export const ARCHIVE_BYTES_MOST = 256 * 1024 * 1024
export const ENTRIES_MOST = 10_000
