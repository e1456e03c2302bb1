import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { toBarBeat } from '../../core/music/grid';
import { tempoOf } from '../../core/piece/tempoOf';
import { noteBeats, type NoteBase } from '../../core/music/noteValue';
import { RECORD_MODES, type RecordMode } from '../../core/piece/moves/record';
import { channelName } from '../../core/piece/find';
import { modeOf, useRecording } from '../../data/recording';
import { useView } from '../../data/view';
import { DotChoice } from '../../ui/DotChoice';
import { Sheet } from '../../ui/Sheet';
import { Button } from '../../ui/Button';
import { Chip } from '../../ui/Chip';
import { Text } from '../../ui/Text';
import { usePiece } from '../studio/StudioProvider';

const GLIDES: readonly NoteBase[] = ['1/64', '1/16', '1/8', '1/4', '1/1'];

/**
 * How moves of a channel are recorded: read, touch, latch or write, for it alone or for all, and how a touch glides
 * back.
 */
export function ModeButton({ channel }: { readonly channel: string }) {
  const piece = usePiece();
  const [open, setOpen] = useState(false);
  const mode = useRecording((recording) => modeOf(recording, channel));
  const name = channelName(piece, channel);
  return (
    <>
      <Button label={`Recording of ${name}: ${mode}. Change`} tone="coralInk" onPress={() => setOpen(true)}>
        {mode}
      </Button>
      <Sheet title={`Recording of ${name}`} visible={open} onClose={() => setOpen(false)}>
        <Modes channel={channel} mode={mode} />
        <Glide />
        <Punch />
      </Sheet>
    </>
  );
}

function Modes({ channel, mode }: { readonly channel: string; readonly mode: RecordMode }) {
  const modes = useRecording((recording) => recording.modes);
  const own = channel in modes;
  const choose = (next: RecordMode): void =>
    useRecording.setState(own ? { modes: { ...modes, [channel]: next } } : { mode: next });
  const everywhere = (): void =>
    useRecording.setState(own ? { modes: {}, mode } : { modes: { ...modes, [channel]: mode } });
  return (
    <>
      <View role="radiogroup" aria-label="Mode">
        {RECORD_MODES.map(({ id, name, does }) => (
          <DotChoice key={id} name={name} says={does} chosen={id === mode} onPress={() => choose(id)} />
        ))}
      </View>
      <Chip
        role="switch"
        label="The same for every channel"
        chosen={!own}
        tone="coralInk"
        style={styles.all}
        onPress={everywhere}
      >
        {own ? 'this channel alone' : 'the same for every channel'}
      </Chip>
    </>
  );
}

/** Recording within the chosen stretch alone. */
function Punch() {
  const piece = usePiece();
  const range = useView((view) => view.range);
  const punch = useRecording((recording) => recording.punch);
  const said = (beat: number): string => {
    const { bar, beat: within } = toBarBeat(beat, tempoOf(piece));
    return `${bar}.${within}`;
  };
  if (!punch && !range)
    return (
      <Text variant="bodySmall" style={styles.glide}>
        Choose a stretch on the ruler to record within it alone.
      </Text>
    );
  return (
    <Chip
      role="switch"
      label="Record within the stretch alone"
      chosen={punch !== null}
      tone="coralInk"
      style={styles.all}
      onPress={() => useRecording.setState({ punch: punch ? null : range })}
    >
      {punch
        ? `only ${said(punch.start)} to ${said(punch.end)} is recorded`
        : `record only ${said(range!.start)} to ${said(range!.end)}`}
    </Chip>
  );
}

/** Beats in which a touch glides back to what was there. */
function Glide() {
  const piece = usePiece();
  const seamBeats = useRecording((recording) => recording.seamBeats);
  return (
    <View style={styles.glide}>
      <Text>Glide back in</Text>
      <View role="radiogroup" aria-label="Glide back in" style={styles.chips}>
        {GLIDES.map((note) => {
          const beats = noteBeats({ base: note, feel: 'straight' }, piece.tempo.beatsPerBar);
          return (
            <Chip
              key={note}
              role="radio"
              label={`Glide back in ${note}`}
              chosen={beats === seamBeats}
              tone="coralInk"
              onPress={() => useRecording.setState({ seamBeats: beats })}
            >
              {note}
            </Chip>
          );
        })}
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  all: { marginTop: 8, alignSelf: 'flex-start' },
  glide: { marginTop: 12, gap: 6 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 6 },
});
