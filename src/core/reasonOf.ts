/** What went wrong, in words: the message of an error, or whatever else was thrown. */
export const reasonOf = (error: unknown): string => (error instanceof Error ? error.message : String(error));
