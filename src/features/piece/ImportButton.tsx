import { useState } from 'react';
import { addTrack } from '../../core/piece/edits/channels';
import { ApiProblem, uploadSound } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { Tap } from '../../ui/Tap';

const ACCEPTED = '.wav,.aif,.aiff,.flac,.mp3,.ogg,.oga,.opus,audio/*';

/** Takes a sound file of the user's and lays it as a clip on a new track. A file that cannot be used changes nothing. */
export function ImportButton() {
  const [busy, setBusy] = useState(false);
  const take = async (file: File): Promise<void> => {
    const { say } = useOpenPiece.getState();
    setBusy(true);
    try {
      await addSoundFile(file);
    } catch (error) {
      say(error instanceof ApiProblem ? `${file.name}: ${error.detail}` : `${file.name} could not be added. Nothing was changed.`);
    } finally {
      setBusy(false);
    }
  };
  const choose = (): void => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = ACCEPTED;
    input.onchange = () => {
      const file = input.files?.[0];
      if (file) void take(file);
    };
    input.click();
  };
  return <Tap plain icon={busy ? 'loader' : 'file-plus'} disabled={busy} label={busy ? 'Adding a sound …' : 'Add a sound file'} onPress={choose} />;
}

async function addSoundFile(file: File): Promise<void> {
  const name = file.name.replace(/\.[^.]+$/, '').trim().slice(0, 100) || 'Sound';
  const { hash, ...info } = await uploadSound(file, name);
  const { run, say } = useOpenPiece.getState();
  const track = crypto.randomUUID();
  const clip = {
    id: crypto.randomUUID(), name, sound: hash, start: 0, offsetSeconds: 0, lengthSeconds: info.frames / info.sampleRate,
    gain: 1, fadeInSeconds: 0, fadeOutSeconds: 0, print: null,
  };
  run(addTrack, { track: { id: track, name, gain: 1, pan: 0, mute: false, solo: false, clips: [clip], chain: [], sends: [] }, sounds: { [hash]: { ...info, name } } });
  useSession.getState().set({ channel: track, slot: null, clip: clip.id });
  say(`${name} was added on a track of its own.`);
}
