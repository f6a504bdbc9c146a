// How the C library is to give memory to the server: photos are large and come and go in several threads, each of which would keep what it once had.
// Without this the server grows by half while it reads.
export const ALLOCATOR = { MALLOC_ARENA_MAX: '2', MALLOC_TRIM_THRESHOLD_: '1000000' };
