import { useState } from 'react';
import { ScrollView, StyleSheet } from 'react-native';
import { effectOf } from '../../../core/effects/catalogue';
import type { Hit } from '../../../core/piece/moves/throws';
import { chainOf, channelName } from '../../../core/piece/find';
import { MAIN, type PrintOrder } from '../../../core/piece/piece';
import { ChipGroup } from '../../../ui/ChipGroup';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { Chip } from '../../../ui/Chip';
import { Text } from '../../../ui/Text';
import { print } from '../../studio/printing';
import { usePiece, useStudio } from '../../studio/StudioProvider';
import { HitStrip } from '../throws/HitStrip';
import { useHits } from '../throws/useHits';
import { RadioChips } from '../../../ui/RadioChips';

interface PrintSheetProps {
  readonly visible: boolean;
  readonly onClose: () => void;
  readonly channel: string;
  readonly clip: string | null;
  readonly range: { readonly start: number; readonly end: number } | null;
}

type Tail = { readonly kind: 'bars'; readonly bars: number | null } | { readonly kind: 'hit' };
const TAILS: readonly { readonly tail: Tail; readonly label: string }[] = [
  { tail: { kind: 'bars', bars: null }, label: 'until silent' },
  { tail: { kind: 'bars', bars: 0 }, label: 'cut at the end' },
  { tail: { kind: 'bars', bars: 1 }, label: '1 bar' },
  { tail: { kind: 'bars', bars: 2 }, label: '2 bars' },
  { tail: { kind: 'bars', bars: 4 }, label: '4 bars' },
  { tail: { kind: 'hit' }, label: 'to the next hit' },
];

const PARTS = [
  { id: 'wet', label: 'Wet only', text: 'wet only' },
  { id: 'mix', label: 'Wet and dry', text: 'wet and dry' },
  { id: 'both', label: 'Both, each by itself', text: 'both, apart' },
] as const;
type Part = (typeof PARTS)[number]['id'];

type Goes = 'shelf' | NonNullable<PrintOrder['goes']>;
const GOES: readonly { readonly id: Goes; readonly label: string }[] = [
  { id: 'shelf', label: 'to the Shelf' },
  { id: 'track', label: 'where it came from, on a track for prints' },
  { id: 'instead', label: 'there, instead of the clip' },
];

/** Settings of a print: source, effects, wet or dry, tail; then it runs in the background while playing goes on. */
export function PrintSheet(props: PrintSheetProps) {
  return (
    <Sheet
      title={props.clip ? 'Print this clip' : 'Print this stretch'}
      visible={props.visible}
      onClose={props.onClose}
    >
      {props.visible ? <Choices {...props} /> : null}
    </Sheet>
  );
}

function Choices({ onClose, channel, clip, range }: PrintSheetProps) {
  const piece = usePiece();
  const { studio } = useStudio();
  const isTrack = piece.tracks.some(({ id }) => id === channel);
  const [source, setSource] = useState(channel);
  const [picking, setPicking] = useState(false);
  const [picked, setPicked] = useState<ReadonlySet<number>>(new Set());
  const [part, setPart] = useState<Part>('wet');
  const [tail, setTail] = useState<Tail>(TAILS[0]!.tail);
  const [goes, setGoes] = useState<Goes>('shelf');
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const hits = useHits(isTrack ? channel : '');
  const chain = chainOf(piece, source).filter((slot) => slot.on);
  const used = chain.filter(({ id }) => !left.has(id));
  const whole = clip ? studio.clipPrint(clip, 'mix', null) : range && { fromBeat: range.start, toBeat: range.end };
  const inside = (hits ?? []).filter(
    ({ beat }) => whole !== null && beat >= whole.fromBeat - 0.01 && beat < whole.toBeat,
  );
  const offersHits = isTrack && source === channel && inside.length > 1;
  const taken = used.length === 0 ? 'mix' : part;
  const ofClip = clip !== null && source === channel && !picking;
  const going = goes === 'instead' && !ofClip ? 'track' : goes;
  const orders = whole
    ? ordersFor({
        source,
        clip: source === channel ? clip : null,
        whole,
        hits: picking && offersHits ? stretches(inside, picked, hits ?? [], whole.toBeat) : null,
        part: taken,
        tail,
        effects: left.size > 0 ? used.map(({ id }) => id) : null,
        all: hits ?? [],
        goes: going,
      })
    : [];
  const start = (): void => {
    for (const order of orders) void print(studio, order);
    onClose();
  };
  const sources = clip
    ? [channel]
    : [channel, ...piece.returns.map(({ id }) => id), MAIN].filter((id, i, all) => all.indexOf(id) === i);
  return (
    <>
      <ScrollView style={styles.body}>
        <Text variant="bodySmall">Only this goes in, through its effects; no neighbour does.</Text>
        {sources.length > 1 || offersHits ? (
          <ChipGroup role="radiogroup" name="What goes in">
            {sources.map((id) => (
              <Chip
                key={id}
                role="radio"
                label={`Print ${sayChannel(piece, id)}`}
                chosen={source === id && !(picking && id === channel && offersHits)}
                tone="sea"
                onPress={() => {
                  setSource(id);
                  setPicking(false);
                }}
              >
                {sayChannel(piece, id)}
              </Chip>
            ))}
            {offersHits || (isTrack && source !== channel && inside.length > 1) ? (
              <Chip
                role="radio"
                label="Print only picked hits"
                chosen={picking && offersHits}
                tone="sea"
                onPress={() => {
                  setSource(channel);
                  setPicking(true);
                }}
              >
                only picked hits
              </Chip>
            ) : null}
          </ChipGroup>
        ) : null}
        {picking && offersHits ? (
          <HitStrip
            hits={inside}
            chosen={picked}
            verb="Print"
            onToggle={(hit) => setPicked((before) => toggled(before, hit))}
          />
        ) : null}
        {chain.length > 0 ? (
          <ChipGroup role="group" name="Through">
            {chain.map(({ id, effect }) => (
              <Chip
                key={id}
                role="switch"
                label={`Through ${effectOf(effect).name}`}
                chosen={!left.has(id)}
                tone="sea"
                onPress={() => setLeft((before) => toggled(before, id))}
              >
                {effectOf(effect).name}
              </Chip>
            ))}
          </ChipGroup>
        ) : null}
        <RadioChips
          name="What is kept"
          tone="sea"
          options={PARTS.map(({ id, label, text }) => ({
            text: text,
            label: label,
            chosen: taken === id,
            disabled: used.length === 0 && id !== 'mix',
            choose: () => setPart(id),
          }))}
        />
        {used.length === 0 ? (
          <Text variant="bodySmall">No effect takes part: the print will be the plain sound.</Text>
        ) : null}
        <RadioChips
          name="How long it rings"
          tone="sea"
          options={TAILS.filter(({ tail: one }) => one.kind !== 'hit' || isTrack).map(({ tail: one, label }) => ({
            text: label,
            label: `Rings: ${label}`,
            chosen: JSON.stringify(one) === JSON.stringify(tail),
            choose: () => setTail(one),
          }))}
        />
        <ChipGroup role="radiogroup" name="Where it goes">
          {GOES.filter(({ id }) => id !== 'instead' || ofClip).map(({ id, label }) => (
            <Chip
              key={id}
              role="radio"
              label={`Goes ${label}`}
              chosen={going === id}
              tone="sea"
              onPress={() => {
                setGoes(id);
                // A print that replaces its clip has to contain the dry sound.
                if (id === 'instead' && part === 'wet') setPart('mix');
              }}
            >
              {label}
            </Chip>
          ))}
        </ChipGroup>
        {going === 'instead' ? <Text variant="bodySmall">The clip is muted, not removed.</Text> : null}
      </ScrollView>
      <Button
        label="Start the print"
        tone="plum"
        mode="contained"
        disabled={orders.length === 0 || (picking && offersHits && picked.size === 0)}
        style={styles.go}
        onPress={start}
      >
        Print
      </Button>
    </>
  );
}

const sayChannel = (piece: ReturnType<typeof usePiece>, id: string): string =>
  id === MAIN ? 'everything' : channelName(piece, id);

const toggled = <Of,>(set: ReadonlySet<Of>, one: Of): ReadonlySet<Of> =>
  new Set(set.has(one) ? [...set].filter((other) => other !== one) : [...set, one]);

/** Picked hits, each up to the next one. */
const stretches = (
  inside: readonly Hit[],
  picked: ReadonlySet<number>,
  all: readonly Hit[],
  end: number,
): { from: number; to: number }[] =>
  inside.flatMap(({ beat }, i) =>
    picked.has(i)
      ? [{ from: beat, to: Math.min(end, all.find((other) => other.beat > beat + 1e-6)?.beat ?? end) }]
      : [],
  );

interface Wanted {
  readonly source: string;
  readonly clip: string | null;
  readonly whole: { readonly fromBeat: number; readonly toBeat: number };
  readonly hits: readonly { readonly from: number; readonly to: number }[] | null;
  readonly part: Part;
  readonly tail: Tail;
  readonly effects: readonly string[] | null;
  readonly all: readonly Hit[];
  readonly goes: Goes;
}

/** One order, or two where wet and dry are wanted separately. */
function ordersFor({ source, clip, whole, hits, part, tail, effects, all, goes }: Wanted): PrintOrder[] {
  const fromBeat = hits?.[0]?.from ?? whole.fromBeat;
  const toBeat = hits?.[hits.length - 1]?.to ?? whole.toBeat;
  const next = all.find(({ beat }) => beat >= toBeat - 1e-6)?.beat;
  const order: PrintOrder = {
    channel: source,
    clip,
    fromBeat,
    toBeat,
    part: part === 'both' ? 'wet' : part,
    tailBars: tail.kind === 'bars' ? tail.bars : null,
    ...(tail.kind === 'hit' && next !== undefined ? { untilBeat: next } : {}),
    ...(hits ? { hits: [...hits] } : {}),
    ...(effects ? { effects: [...effects] } : {}),
    ...(goes === 'shelf' ? {} : { goes }),
  };
  return part === 'both' ? [order, { ...order, part: 'dry' }] : [order];
}

const styles = StyleSheet.create({
  body: { maxHeight: 520 },
  go: { marginTop: 14, alignSelf: 'flex-start' },
});
