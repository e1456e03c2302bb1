/** Files in an archive of a piece. */
export const ARCHIVE_PIECE = 'piece.json';
export const ARCHIVE_HISTORY = 'history.json';
export const archiveSoundName = (hash: string): string => `sounds/${hash}.wav`;
