import { zodResolver } from '@hookform/resolvers/zod';
import { useForm, useWatch } from 'react-hook-form';
import { ScrollView, StyleSheet } from 'react-native';
import { effectOf } from '../../../core/effects/catalogue';
import { chainOf, channelName } from '../../../core/piece/find';
import { MAIN } from '../../../core/piece/piece';
import { Button } from '../../../ui/Button';
import { OmittingField, RadioField } from '../../../ui/FormChips';
import { RadioChips } from '../../../ui/RadioChips';
import { Sheet } from '../../../ui/Sheet';
import { Text } from '../../../ui/Text';
import { print } from '../../studio/printing';
import { usePiece, useStudio } from '../../studio/StudioProvider';
import { HitStrip } from '../throws/HitStrip';
import { useHits } from '../throws/useHits';
import { goesTo, hitsInside, partOf, printDefaults, printFormSchema, printOrders, type Tail } from './printOrders';

interface PrintSheetProps {
  readonly visible: boolean;
  readonly onClose: () => void;
  readonly channel: string;
  readonly clip: string | null;
  readonly range: { readonly start: number; readonly end: number } | null;
}

const TAILS: readonly { readonly value: Tail; readonly text: string }[] = [
  { value: 'silent', text: 'until silent' },
  { value: 'cut', text: 'cut at the end' },
  { value: '1 bar', text: '1 bar' },
  { value: '2 bars', text: '2 bars' },
  { value: '4 bars', text: '4 bars' },
  { value: 'hit', text: 'to the next hit' },
];

const PARTS = [
  { value: 'wet', label: 'Wet only', text: 'wet only' },
  { value: 'mix', label: 'Wet and dry', text: 'wet and dry' },
  { value: 'both', label: 'Both, each by itself', text: 'both, apart' },
] as const;

const GOES = [
  { value: 'shelf', text: 'to the Shelf' },
  { value: 'track', text: 'where it came from, on a track for prints' },
  { value: 'instead', text: 'there, instead of the clip' },
] as const;

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
  const { control, handleSubmit, setValue } = useForm({
    resolver: zodResolver(printFormSchema),
    defaultValues: printDefaults(channel),
  });
  const chosen = { ...printDefaults(channel), ...useWatch({ control }) };
  const isTrack = piece.tracks.some(({ id }) => id === channel);
  const hits = useHits(isTrack ? channel : '') ?? [];
  const { source } = chosen;
  const chain = chainOf(piece, source).filter((slot) => slot.on);
  const effects = chain.map(({ id }) => id);
  const whole = clip ? studio.clipPrint(clip, 'mix', null) : range && { fromBeat: range.start, toBeat: range.end };
  const inside = whole ? hitsInside(hits, whole) : [];
  const hasHits = isTrack && inside.length > 1;
  const values = { ...chosen, picking: chosen.picking && hasHits && source === channel };
  const ownClip = source === channel ? clip : null;
  const goes = goesTo(values, ownClip);
  const part = partOf(values, effects);
  const isPlain = effects.every((id) => values.omitted.includes(id));
  const orders = whole ? printOrders(values, { clip: ownClip, whole, hits, effects }) : [];
  const start = handleSubmit(() => {
    for (const order of orders) void print(studio, order);
    onClose();
  });
  const sources = clip ? [channel] : [...new Set([channel, ...piece.returns.map(({ id }) => id), MAIN])];
  const takeFrom = (id: string, picking: boolean): void => {
    setValue('source', id);
    setValue('picking', picking);
  };
  return (
    <>
      <ScrollView style={styles.body}>
        <Text variant="bodySmall">Only this goes in, through its effects; no neighbour does.</Text>
        {sources.length > 1 || hasHits ? (
          <RadioChips
            name="What goes in"
            tone="sea"
            options={[
              ...sources.map((id) => ({
                text: sourceName(piece, id),
                label: `Print ${sourceName(piece, id)}`,
                chosen: source === id && !values.picking,
                choose: () => takeFrom(id, false),
              })),
              ...(hasHits
                ? [
                    {
                      text: 'only picked hits',
                      label: 'Print only picked hits',
                      chosen: values.picking,
                      choose: () => takeFrom(channel, true),
                    },
                  ]
                : []),
            ]}
          />
        ) : null}
        {values.picking ? (
          <HitStrip
            hits={inside}
            chosen={new Set(values.picked)}
            verb="Print"
            onToggle={(hit) => setValue('picked', toggled(values.picked, hit))}
          />
        ) : null}
        {chain.length > 0 ? (
          <OmittingField
            control={control}
            field="omitted"
            name="Through"
            tone="sea"
            options={chain.map(({ id, effect }) => ({
              id,
              text: effectOf(effect).name,
              label: `Through ${effectOf(effect).name}`,
            }))}
          />
        ) : null}
        <RadioField
          control={control}
          field="part"
          name="What is kept"
          tone="sea"
          shown={part}
          options={PARTS.map((one) => ({ ...one, disabled: isPlain && one.value !== 'mix' }))}
        />
        {isPlain ? (
          <Text variant="bodySmall" style={styles.note}>
            No effect takes part: the print will be the plain sound.
          </Text>
        ) : null}
        <RadioField
          control={control}
          field="tail"
          name="How long it rings"
          tone="sea"
          options={TAILS.filter(({ value }) => value !== 'hit' || isTrack).map((one) => ({
            ...one,
            label: `Rings: ${one.text}`,
          }))}
        />
        <RadioChips
          name="Where it goes"
          tone="sea"
          options={GOES.filter(({ value }) => value !== 'instead' || (ownClip && !values.picking)).map(
            ({ value, text }) => ({
              text,
              label: `Goes ${text}`,
              chosen: goes === value,
              choose: () => {
                setValue('goes', value);
                // A print that replaces its clip has to contain the dry sound.
                if (value === 'instead' && values.part === 'wet') setValue('part', 'mix');
              },
            }),
          )}
        />
        {goes === 'instead' ? (
          <Text variant="bodySmall" style={styles.note}>
            The clip is muted, not removed.
          </Text>
        ) : null}
      </ScrollView>
      <Button
        label="Start the print"
        tone="plum"
        mode="contained"
        disabled={orders.length === 0}
        style={styles.go}
        onPress={() => void start()}
      >
        Print
      </Button>
    </>
  );
}

const sourceName = (piece: ReturnType<typeof usePiece>, id: string): string =>
  id === MAIN ? 'everything' : channelName(piece, id);

const toggled = (list: readonly number[], one: number): number[] =>
  list.includes(one) ? list.filter((other) => other !== one) : [...list, one];

const styles = StyleSheet.create({
  body: { maxHeight: 600, flexShrink: 1 },
  note: { marginTop: 8 },
  go: { marginTop: 14, alignSelf: 'flex-start' },
});
