import { useState } from 'react';
import { ApiProblem, type UploadStatus } from '../../../data/api';
import { useOpenPiece } from '../../../data/openPiece';
import { chooseFile } from '../../studio/localFiles';

const ACCEPTED = '.wav,.aif,.aiff,.flac,.mp3,.ogg,.oga,.opus,audio/*';

interface SoundFile {
  readonly busy: boolean;
  /** How far a file has come, in words; null until that is known. */
  readonly progress: string | null;
  readonly choose: () => void;
}

function progressText(file: File, { state, received, ahead }: UploadStatus): string {
  if (state === 'receiving') return `${Math.min(100, Math.round((100 * received) / Math.max(1, file.size)))} % sent`;
  return state === 'waiting' ? `waiting, ${ahead + 1} before it` : 'reading it';
}

/**
 * Lets the user choose a sound file, and hands it on with its name. A file that cannot be used changes nothing and says
 * why.
 */
export function useSoundFile(
  take: (file: File, name: string, onStatus: (status: UploadStatus) => void) => Promise<void>,
): SoundFile {
  const [busy, setBusy] = useState(false);
  const [progress, setProgress] = useState<string | null>(null);
  const taken = async (file: File): Promise<void> => {
    setBusy(true);
    try {
      await take(
        file,
        file.name
          .replace(/\.[^.]+$/, '')
          .trim()
          .slice(0, 100) || 'Sound',
        (status) => setProgress(progressText(file, status)),
      );
    } catch (error) {
      useOpenPiece
        .getState()
        .say(
          error instanceof ApiProblem
            ? `${file.name}: ${error.detail}`
            : `${file.name} could not be added. Nothing was changed.`,
        );
    } finally {
      setBusy(false);
      setProgress(null);
    }
  };
  return { busy, progress, choose: () => chooseFile(ACCEPTED, (file) => void taken(file)) };
}
