import { useState } from 'react';
import { ApiProblem, type UploadStatus } from '../../../data/api';
import { useOpenPiece } from '../../../data/openPiece';
import { chooseFile } from '../../studio/localFiles';
import { progressText, SOUND_FILES, soundName } from '../../studio/soundFiles';

interface SoundFile {
  readonly busy: boolean;
  /** Progress of a file, in words; null until it is known. */
  readonly progress: string | null;
  readonly choose: () => void;
}

/**
 * Lets the user choose a sound file, and passes it on with its name. A file that cannot be used changes nothing and
 * reports why.
 */
export function useSoundFile(
  take: (file: File, name: string, onStatus: (status: UploadStatus) => void) => Promise<void>,
): SoundFile {
  const [busy, setBusy] = useState(false);
  const [progress, setProgress] = useState<string | null>(null);
  const taken = async (file: File): Promise<void> => {
    setBusy(true);
    try {
      await take(file, soundName(file), (status) => setProgress(progressText(file, status)));
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
  return { busy, progress, choose: () => chooseFile(SOUND_FILES, (file) => void taken(file)) };
}
