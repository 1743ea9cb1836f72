/** The size of a file as people read it. */
export const fileSize = (bytes: number) =>
  bytes < 100_000 ? `${Math.ceil(bytes / 1000)} kB` : `${(bytes / 1_000_000).toFixed(1)} MB`;
