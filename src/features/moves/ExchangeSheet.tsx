import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { readMovesCsv, writeMovesCsv, type ReadMoves } from '../../core/exchange/movesCsv';
import { readMovesMidi, writeMovesMidi } from '../../core/exchange/movesMidi';
import { layMoves } from '../../core/piece/edits/lanes';
import { channelName, channelOfTarget } from '../../core/piece/find';
import type { Lane, Piece } from '../../core/piece/piece';
import { useOpenPiece } from '../../data/openPiece';
import { newId } from '../../data/newId';
import { useClipboard } from '../../data/clipboard';
import { Sheet } from '../../ui/Sheet';
import { Button } from '../../ui/Button';
import { Chip } from '../../ui/Chip';
import { Text } from '../../ui/Text';
import { usePiece } from '../studio/StudioProvider';
import { chooseFile, saveFile } from '../studio/localFiles';

/** Lines of what an import says that are shown. */
const MAX_LINES = 6;

/** Lays what was read into the piece. @returns what could not be, for the person to read */
function lay({ lanes, missed }: ReadMoves): readonly string[] {
  if (lanes.length > 0) useOpenPiece.getState().run(layMoves, { lanes: [...lanes], what: 'Import moves' });
  return [`${lanes.length} ${lanes.length === 1 ? 'lane' : 'lanes'} imported.`, ...missed];
}

function importMidi(piece: Piece, bytes: Uint8Array): readonly string[] {
  const { loose, ...read } = readMovesMidi(piece, bytes, newId);
  const said = lay(read);
  if (loose.length === 0) return said;
  useClipboard.setState({ clipboard: loose });
  return [
    ...said,
    `${loose.length} ${loose.length === 1 ? 'controller has' : 'controllers have'} no name that is known here: copied. Choose a stretch on the ruler, then "paste here" lays it onto the chosen lane.`,
  ];
}

interface ExchangeSheetProps {
  readonly channel: string;
  readonly open: boolean;
  readonly onClose: () => void;
}

/** Moves to and from MIDI files and tables, and as text between two pieces. */
export function ExchangeSheet({ channel, open, onClose }: ExchangeSheetProps) {
  const piece = usePiece();
  const [all, setAll] = useState(false);
  const [said, setSaid] = useState<readonly string[]>([]);
  const lanes: readonly Lane[] = piece.lanes.filter((lane) => all || channelOfTarget(lane.target) === channel);
  const name = `${piece.name}, ${all ? 'all moves' : `moves of ${channelName(piece, channel)}`}`;
  const importFile = async (file: File): Promise<void> => {
    const bytes = new Uint8Array(await file.arrayBuffer());
    const table = /\.(csv|txt)$/i.test(file.name);
    setSaid(table ? lay(readMovesCsv(piece, new TextDecoder().decode(bytes), newId)) : importMidi(piece, bytes));
  };
  const copy = (): void =>
    void navigator.clipboard.writeText(writeMovesCsv(piece, lanes)).then(
      () => setSaid([`${lanes.length} ${lanes.length === 1 ? 'lane' : 'lanes'} copied as text.`]),
      () => setSaid(['The browser did not let the text be copied. Save the table instead.']),
    );
  const paste = (): void =>
    void navigator.clipboard.readText().then(
      (text) => setSaid(lay(readMovesCsv(piece, text, newId))),
      () => setSaid(['The browser did not let the text be read. Import the table as a file instead.']),
    );
  const close = (): void => {
    onClose();
    setSaid([]);
  };
  return (
    <Sheet title="Import and export moves" visible={open} onClose={close}>
      <Chip
        role="switch"
        label="Moves of every channel"
        chosen={all}
        tone="coralInk"
        style={styles.start}
        onPress={() => setAll(!all)}
      >
        {all ? 'of every channel' : `of ${channelName(piece, channel)} alone`}
      </Chip>
      <View style={styles.row}>
        <Button
          label="Save as MIDI, 14 bit"
          icon="download"
          disabled={lanes.length === 0}
          onPress={() => saveFile(`${name}.mid`, writeMovesMidi(piece, lanes, 14), 'audio/midi')}
        >
          MIDI
        </Button>
        <Button
          label="Save as MIDI, 7 bit"
          icon="download"
          disabled={lanes.length === 0}
          onPress={() => saveFile(`${name}.mid`, writeMovesMidi(piece, lanes, 7), 'audio/midi')}
        >
          MIDI, 7 bit
        </Button>
        <Button
          label="Save as a table (CSV)"
          icon="download"
          disabled={lanes.length === 0}
          onPress={() => saveFile(`${name}.csv`, writeMovesCsv(piece, lanes), 'text/csv')}
        >
          table
        </Button>
        <Button label="Copy as text" icon="copy" disabled={lanes.length === 0} onPress={copy}>
          as text
        </Button>
      </View>
      <View style={styles.row}>
        <Button
          label="Import a MIDI file or a table"
          icon="upload"
          onPress={() => chooseFile('.mid,.midi,.csv,.txt', (file) => void importFile(file))}
        >
          import …
        </Button>
        <Button label="Paste moves from text" icon="clipboard" onPress={paste}>
          paste text
        </Button>
      </View>
      <Text variant="bodySmall">
        {lanes.length === 0
          ? 'There are no moves here to save.'
          : `${lanes.length} ${lanes.length === 1 ? 'lane' : 'lanes'}. An import finds its rails by their names and replaces their lanes; one undo brings them back.`}
      </Text>
      <View role="status">
        {said.slice(0, MAX_LINES).map((line, i) => (
          <Text key={i}>{line}</Text>
        ))}
        {said.length > MAX_LINES ? <Text>{`And ${said.length - MAX_LINES} more of the kind.`}</Text> : null}
      </View>
    </Sheet>
  );
}

const styles = StyleSheet.create({
  start: { alignSelf: 'flex-start' },
  row: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 6 },
});
