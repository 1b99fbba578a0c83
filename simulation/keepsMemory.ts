/**
 * Pictures are painted and read back some megabytes at a time. The C library gives such pieces back to the system at
 * once, which costs more than to fill them; told so in the environment of a process that paints, it keeps them (mallopt(3)).
 */
export const KEEPS_MEMORY = {
  MALLOC_MMAP_THRESHOLD_: String(64 << 20),
  MALLOC_TRIM_THRESHOLD_: String(256 << 20),
  MALLOC_TOP_PAD_: String(16 << 20)
}
