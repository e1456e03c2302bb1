/** A size in bytes as a person reads it: "820 kB", "3.4 MB". */
export const sizeText = (bytes: number): string =>
  bytes < 1e6
    ? `${Math.round(bytes / 1000)} kB`
    : bytes < 1e9
      ? `${(bytes / 1e6).toFixed(1)} MB`
      : `${(bytes / 1e9).toFixed(2)} GB`;
