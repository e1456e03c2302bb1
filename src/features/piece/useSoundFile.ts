import { useState } from 'react';
import { ApiProblem } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { chooseFile } from '../studio/localFiles';

const ACCEPTED = '.wav,.aif,.aiff,.flac,.mp3,.ogg,.oga,.opus,audio/*';

/** Lets the user choose a sound file, and hands it on with its name. A file that cannot be used changes nothing and says why. */
export function useSoundFile(take: (file: File, name: string) => Promise<void>): { readonly busy: boolean; readonly choose: () => void } {
  const [busy, setBusy] = useState(false);
  const taken = async (file: File): Promise<void> => {
    setBusy(true);
    try {
      await take(file, file.name.replace(/\.[^.]+$/, '').trim().slice(0, 100) || 'Sound');
    } catch (error) {
      useOpenPiece.getState().say(error instanceof ApiProblem ? `${file.name}: ${error.detail}` : `${file.name} could not be added. Nothing was changed.`);
    } finally {
      setBusy(false);
    }
  };
  return { busy, choose: () => chooseFile(ACCEPTED, (file) => void taken(file)) };
}
