import { addTrack } from '../../../core/piece/edits/channels';
import { uploadSound, type UploadStatus } from '../../../data/api';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { Button } from '../../../ui/Button';
import { useSoundFile } from './useSoundFile';
import { newId } from '../../../data/newId';

/** Takes a sound file of the user's and lays it as a clip on a new track. */
export function ImportButton() {
  const { busy, progress, choose } = useSoundFile(addSoundFile);
  const label = busy ? `Adding a sound: ${progress ?? '…'}` : 'Add a sound file';
  return (
    <Button label={label} icon={busy ? 'loader' : 'file-plus'} mode="text" disabled={busy} onPress={choose}>
      {progress ?? undefined}
    </Button>
  );
}

async function addSoundFile(file: File, name: string, onStatus: (status: UploadStatus) => void): Promise<void> {
  const { hash, ...info } = await uploadSound(file, name, onStatus);
  const { run, say } = useOpenPiece.getState();
  const track = newId();
  const clip = {
    id: newId(),
    name,
    sound: hash,
    start: 0,
    offsetSeconds: 0,
    lengthSeconds: info.frames / info.sampleRate,
    gain: 1,
    fadeInSeconds: 0,
    fadeOutSeconds: 0,
    print: null,
  };
  run(addTrack, {
    track: { id: track, name, gain: 1, pan: 0, mute: false, solo: false, clips: [clip], chain: [], sends: [] },
    sounds: { [hash]: { ...info, name } },
  });
  useView.setState({ channel: track, slot: null, clip: clip.id });
  say(`${name} was added on a track of its own.`);
}
