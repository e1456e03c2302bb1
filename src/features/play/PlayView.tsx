import { useMemo, useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { effectOf } from '../../core/effects/catalogue';
import { findSlot } from '../../core/piece/find';
import { MAIN, type EffectTarget } from '../../core/piece/piece';
import { useView } from '../../data/view';
import { Button } from '../../ui/Button';
import { IconButton } from '../../ui/IconButton';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { Touchable } from '../../ui/Touchable';
import { useTokens, useWide } from '../../ui/theme';
import { holdTargets } from '../studio/played';
import { usePiece } from '../studio/StudioProvider';
import { ControllerButton } from '../shared/controller/ControllerButton';
import { HelpButton } from '../shared/shell/HelpButton';
import { AddHold } from './AddHold';
import { FieldSheet } from './FieldSheet';
import { FieldSurface } from './FieldSurface';
import { HoldPanel } from './HoldPanel';
import { KeySheet } from './KeySheet';
import { LetGoOfAll } from './LetGoOfAll';
import { PadArea } from './PadArea';
import { MAX_STONES, usePlayControl, usePlayKeyboard, usePlayNotes } from '../shared/commands/playKeys';
import { usePlayState } from './playState';
import { useHoldPresets } from './presets';
import { Recorded } from './Recorded';
import { canFillScreen, fillScreen, useWakeLock } from './stage';
import { StageBar } from './StageBar';
import { SmallPrint } from './SmallPrint';
import { Stone } from './Stone';

/** Stones in a row on a wide screen. */
const STONES_A_ROW = 4;

/** Holds, a field and pads to be played: thumbs only on a phone, all side by side where there is room. */
export function PlayView() {
  const wide = useWide();
  const stage = useView((view) => view.stage);
  useWakeLock();
  usePlayKeyboard();
  usePlayNotes();
  usePresetKeys();
  return (
    <View style={[styles.view, wide && styles.viewWide]}>
      {stage ? <StageBar /> : <Head />}
      {wide ? <Wide /> : <Phone />}
    </View>
  );
}

/** The switches of all holds of the piece; the same objects until the piece changes. */
function useHolds(): readonly EffectTarget[] {
  const piece = usePiece();
  return useMemo(() => holdTargets(piece), [piece]);
}

/** The holds that have stones now, and the way to the others. */
function useStones(): {
  readonly shown: readonly EffectTarget[];
  readonly page: number;
  readonly pages: number;
  turn(): void;
} {
  const holds = useHolds();
  const [page, setPage] = useState(0);
  const pages = Math.max(1, Math.ceil(holds.length / MAX_STONES));
  const at = page % pages;
  const first = at * MAX_STONES;
  return { shown: holds.slice(first, first + MAX_STONES), page: at + 1, pages, turn: () => setPage(at + 1) };
}

/** The hold that was played last; the first at the start. */
function useChosenHold(): EffectTarget | undefined {
  const holds = useHolds();
  const chosen = usePlayState((state) => state.hold);
  return holds.find(({ effect }) => effect === chosen) ?? holds[0];
}

/** Keys that step the presets of the hold that was played last. */
function usePresetKeys(): void {
  const { step } = useHoldPresets(useChosenHold());
  usePlayControl('presetBack', { begin: () => step(-1) });
  usePlayControl('presetNext', { begin: () => step(1) });
}

function useField() {
  const piece = usePiece();
  const chosen = usePlayState((state) => state.field);
  return piece.fields?.find(({ id }) => id === chosen) ?? piece.fields?.[0];
}

/** What is set up before it is played. */
function Head() {
  const piece = usePiece();
  const wide = useWide();
  const field = useField();
  const [open, setOpen] = useState<'field' | 'hold' | 'keys' | null>(null);
  const close = (): void => setOpen(null);
  const full = useHolds().length >= 4 * MAX_STONES;
  return (
    <View style={styles.head}>
      {wide ? (
        <Text variant="titleLarge" role="heading" aria-level={1} style={styles.title} numberOfLines={1}>
          {piece.name}
        </Text>
      ) : null}
      <Touchable label="Field: choose and set up" mode="outlined" onPress={() => setOpen('field')}>
        <Text>Field ▾</Text>
      </Touchable>
      <Button icon="plus" disabled={full} label="Add a hold" onPress={() => setOpen('hold')}>
        Hold
      </Button>
      <View style={wide ? undefined : styles.space} />
      {wide ? (
        <Button mode="text" onPress={() => setOpen('keys')}>
          Keys
        </Button>
      ) : null}
      <ControllerButton channel={MAIN} />
      {wide && canFillScreen() ? <IconButton icon="maximize" label="Full screen" onPress={fillScreen} /> : null}
      {wide ? null : <HelpButton />}
      <Button
        icon="lock"
        label="Stage lock: only Play reacts"
        mode="text"
        onPress={() => useView.setState({ stage: true })}
      >
        Stage
      </Button>
      <FieldSheet open={open === 'field'} field={field} onClose={close} />
      <AddHold open={open === 'hold'} onClose={close} />
      <KeySheet open={open === 'keys'} onClose={close} />
    </View>
  );
}

function FieldOrNone() {
  const tokens = useTokens();
  const field = useField();
  if (field) return <FieldSurface key={field.id} field={field} />;
  return (
    <View style={[styles.empty, { borderColor: tokens.line }]}>
      <Text style={styles.emptyText}>No field yet. Choose one under Field: a sweep, an echo, a space.</Text>
    </View>
  );
}

function NoHolds() {
  return <Text style={styles.emptyText}>No holds yet. Add one with + Hold: a stutter, a tape stop, a cloud.</Text>;
}

const stoneKey = ({ channel, effect }: EffectTarget): string => `${channel}/${effect}`;

function Phone() {
  const { shown, page, pages, turn } = useStones();
  const half = Math.ceil(shown.length / 2);
  const side = (from: number, to: number) => (
    <View style={styles.side}>
      {shown.slice(from, to).map((target, i) => (
        <Stone key={stoneKey(target)} target={target} index={from + i} />
      ))}
    </View>
  );
  return (
    <>
      <View style={styles.fieldPhone}>
        <FieldOrNone />
      </View>
      <View style={styles.hands}>
        {shown.length === 0 ? (
          <View style={styles.side}>
            <NoHolds />
          </View>
        ) : (
          side(0, half)
        )}
        <PadArea across={false} most={4} />
        {side(half, shown.length)}
      </View>
      <View style={styles.foot}>
        <LetGoOfAll />
        <FiguresButton />
        {pages > 1 ? (
          <Touchable label={`More holds, page ${page} of ${pages}`} mode="outlined" style={styles.more} onPress={turn}>
            <Text>{`Holds ${page} / ${pages} ›`}</Text>
          </Touchable>
        ) : null}
      </View>
    </>
  );
}

/** Opens the figures of the hold that was played last in a sheet, on a phone; not shown under stage lock. */
function FiguresButton() {
  const piece = usePiece();
  const hold = useChosenHold();
  const stage = useView((view) => view.stage);
  const [open, setOpen] = useState(false);
  const slot = hold && findSlot(piece, hold.channel, hold.effect);
  if (!hold || !slot || stage) return null;
  return (
    <>
      <Touchable
        label={`Figures of ${effectOf(slot.effect).name}, the hold that was played last`}
        mode="outlined"
        style={styles.more}
        onPress={() => setOpen(true)}
      >
        <Text>Figures</Text>
      </Touchable>
      <Sheet title="Figures" visible={open} onClose={() => setOpen(false)}>
        <View style={styles.figures}>
          <HoldPanel key={stoneKey(hold)} target={hold} />
        </View>
      </Sheet>
    </>
  );
}

function Wide() {
  const { shown, page, pages, turn } = useStones();
  const hold = useChosenHold();
  const rows = [shown.slice(0, STONES_A_ROW), shown.slice(STONES_A_ROW)].filter((row) => row.length > 0);
  return (
    <View style={styles.wide}>
      <View style={styles.left}>
        <View style={styles.fieldWide}>
          <FieldOrNone />
        </View>
        <View style={styles.stonesWide}>
          {rows.length === 0 ? <NoHolds /> : null}
          {rows.map((row, r) => (
            <View key={r} style={[styles.row, styles.stoneRow]}>
              {row.map((target, i) => (
                <Stone key={stoneKey(target)} target={target} index={STONES_A_ROW * r + i} />
              ))}
              {r > 0 && row.length < STONES_A_ROW ? <View style={{ flex: STONES_A_ROW - row.length }} /> : null}
            </View>
          ))}
        </View>
        <View style={styles.row}>
          <PadArea across most={5} />
          {pages > 1 ? (
            <Touchable
              label={`More holds, page ${page} of ${pages}`}
              mode="outlined"
              style={styles.more}
              onPress={turn}
            >
              <Text>{`Holds ${page} / ${pages} ›`}</Text>
            </Touchable>
          ) : null}
          <LetGoOfAll />
        </View>
      </View>
      <View style={styles.right}>
        {hold ? <HoldPanel key={stoneKey(hold)} target={hold} /> : <View style={styles.side} />}
        <Recorded />
        <SmallPrint />
      </View>
    </View>
  );
}

const styles = StyleSheet.create({
  view: { flex: 1, minHeight: 0, paddingHorizontal: 10, paddingBottom: 8, overflow: 'hidden' },
  viewWide: { paddingHorizontal: 18, paddingBottom: 12 },
  head: { flexDirection: 'row', alignItems: 'center', gap: 6, minHeight: 54 },
  title: { flex: 1 },
  space: { flex: 1 },
  fieldPhone: { flexGrow: 1, flexShrink: 1, flexBasis: 200, minHeight: 160 },
  hands: {
    flexDirection: 'row',
    gap: 8,
    paddingTop: 10,
    flexGrow: 1,
    flexShrink: 1,
    flexBasis: 330,
    minHeight: 300,
    maxHeight: 420,
  },
  side: { flex: 1, gap: 8, minWidth: 0, justifyContent: 'center' },
  foot: { flexDirection: 'row', gap: 8, paddingTop: 8 },
  more: { minHeight: 64, paddingHorizontal: 16 },
  figures: { height: 560, maxHeight: '100%' },
  wide: { flex: 1, minHeight: 0, flexDirection: 'row', gap: 26 },
  left: { flex: 3, minHeight: 0, gap: 12 },
  right: { flex: 2, minHeight: 0, gap: 12 },
  fieldWide: { flex: 1, minHeight: 160 },
  stonesWide: { gap: 10 },
  stoneRow: { alignItems: 'stretch', height: 104 },
  row: { flexDirection: 'row', gap: 12, alignItems: 'center', minHeight: 92 },
  empty: {
    flex: 1,
    borderWidth: 1,
    borderRadius: 18,
    borderStyle: 'dashed',
    alignItems: 'center',
    justifyContent: 'center',
    padding: 20,
  },
  emptyText: { fontSize: 15, lineHeight: 21, textAlign: 'center' },
});
