import { useState } from 'react';
import { StyleSheet, TextInput, View } from 'react-native';
import { toBarBeat } from '../../core/music/grid';
import { putSection, removeSection } from '../../core/piece/edits/sections';
import { useOpenPiece } from '../../data/openPiece';
import { Sheet } from '../../ui/Sheet';
import { Tap } from '../../ui/Tap';
import { useTokens } from '../../ui/theme';
import { FONT, TOUCH } from '../../ui/tokens';
import { Words } from '../../ui/Words';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { newId } from '../../data/newId';

/** Names parts of the piece: each stands on the ruler, and in files that are written as a marker. */
export function SectionButton({ beat }: { readonly beat: number }) {
  const piece = usePiece();
  const tokens = useTokens();
  const { studio } = useStudio();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const { run } = useOpenPiece.getState();
  const sections = piece.sections ?? [];
  const here = sections.find((section) => Math.abs(section.beat - beat) < 1e-6);
  const say = (at: number): string => {
    const { bar, beat: within } = toBarBeat(at, piece.tempo);
    return within === 1 ? `bar ${bar}` : `bar ${bar}.${within}`;
  };
  const put = (): void => {
    if (name.trim() !== '' && run(putSection, { id: here?.id ?? newId(), name: name.trim().slice(0, 60), beat })) {
      setName('');
      setOpen(false);
    }
  };
  return (
    <>
      <Tap icon="flag" text="Section …" label="Sections of the piece" onPress={() => setOpen(true)} />
      <Sheet title="Sections" visible={open} onClose={() => setOpen(false)}>
        <View style={styles.row}>
          <TextInput
            aria-label={`Name of the section at ${say(beat)}`}
            placeholder={`Begins at ${say(beat)} …`}
            placeholderTextColor={tokens.mute}
            value={name}
            onChangeText={setName}
            onSubmitEditing={put}
            maxLength={60}
            style={[styles.field, { color: tokens.ink, borderColor: tokens.line, backgroundColor: tokens.card }]}
          />
          <Tap
            filled
            tone="sea"
            label="Put the section there"
            text={here ? 'Rename' : 'Put'}
            disabled={name.trim() === ''}
            onPress={put}
          />
        </View>
        {sections.length === 0 ? (
          <Words kind="small">None yet. Sections stand on the ruler and become markers in the files you write.</Words>
        ) : null}
        {sections.map((section) => (
          <View key={section.id} style={styles.row}>
            <Tap plain label={`Go to ${section.name}`} onPress={() => studio.locate(section.beat)} style={styles.item}>
              <Words kind="strong" numberOfLines={1}>
                {section.name}
              </Words>
              <Words kind="small">{say(section.beat)}</Words>
            </Tap>
            <Tap
              plain
              icon="trash-2"
              tone="mute"
              label={`Remove the section ${section.name}`}
              onPress={() => run(removeSection, { section: section.id })}
            />
          </View>
        ))}
      </Sheet>
    </>
  );
}

const styles = StyleSheet.create({
  row: { flexDirection: 'row', alignItems: 'center', gap: 8, marginBottom: 6 },
  field: {
    flex: 1,
    minHeight: TOUCH,
    borderWidth: 1,
    borderRadius: 14,
    paddingHorizontal: 14,
    fontFamily: FONT,
    fontSize: 15,
  },
  item: { flex: 1, alignItems: 'flex-start', paddingHorizontal: 0 },
});
