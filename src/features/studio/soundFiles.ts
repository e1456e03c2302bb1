import type { UploadStatus } from '../../data/api';

/** Accepted sound files, for a file chooser. */
export const SOUND_FILES = '.wav,.aif,.aiff,.flac,.mp3,.ogg,.oga,.opus,audio/*';

/** What a sound is called: its file's name without the ending. */
export const soundName = ({ name }: Pick<File, 'name'>): string =>
  name
    .replace(/\.[^.]+$/, '')
    .trim()
    .slice(0, 100) || 'Sound';

/** Progress of a file, in words. */
export function progressText({ size }: Pick<File, 'size'>, { state, received, ahead }: UploadStatus): string {
  if (state === 'receiving') return `${Math.min(100, Math.round((100 * received) / Math.max(1, size)))} % sent`;
  return state === 'waiting' ? `waiting, ${ahead + 1} before it` : 'reading it';
}
