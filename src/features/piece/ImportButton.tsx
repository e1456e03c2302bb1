import { addTrack } from '../../core/piece/edits/channels';
import { uploadSound } from '../../data/api';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { Tap } from '../../ui/Tap';
import { useSoundFile } from './useSoundFile';

/** Takes a sound file of the user's and lays it as a clip on a new track. */
export function ImportButton() {
  const { busy, choose } = useSoundFile(addSoundFile);
  return <Tap plain icon={busy ? 'loader' : 'file-plus'} disabled={busy} label={busy ? 'Adding a sound …' : 'Add a sound file'} onPress={choose} />;
}

async function addSoundFile(file: File, name: string): Promise<void> {
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
