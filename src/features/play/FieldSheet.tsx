import { ScrollView, StyleSheet, View } from 'react-native';
import { EFFECTS } from '../../core/effects/catalogue';
import { GRIDS } from '../../core/effects/hold/params';
import { addField, readyField, removeField, setField } from '../../core/piece/edits/fields';
import { channelName } from '../../core/piece/find';
import { MAIN } from '../../core/piece/piece';
import { LIFTS, MAX_FIELDS, type Lift, type PlayField } from '../../core/piece/playField';
import { newId } from '../../data/newId';
import { useOpenPiece } from '../../data/openPiece';
import { Button } from '../../ui/Button';
import { ListItem } from '../../ui/ListItem';
import { NameField } from '../../ui/NameField';
import { Sheet } from '../../ui/Sheet';
import { Text } from '../../ui/Text';
import { usePiece } from '../studio/StudioProvider';
import { AxisChoice } from './AxisChoice';
import { usePlayState } from './playState';
import { RadioChips } from '../../ui/RadioChips';

const LIFT_NAMES: Readonly<Record<Lift, string>> = { glide: 'glides back', stay: 'stays', spring: 'springs through' };
const LIFT_BEATS = [0.25, 0.5, 1, 2, 4, 8] as const;

const beatsName = (beats: number): string =>
  beats < 1 ? `1/${1 / beats} beat` : beats === 1 ? '1 beat' : `${beats} beats`;

interface FieldSheetProps {
  readonly open: boolean;
  readonly field: PlayField | undefined;
  readonly onClose: () => void;
}

/** Chooses a field, sets what it moves and what it does on lifting, and makes new ones. */
export function FieldSheet({ open, field, onClose }: FieldSheetProps) {
  const piece = usePiece();
  const fields = piece.fields ?? [];
  return (
    <Sheet title="Field" visible={open} onClose={onClose}>
      <ScrollView style={styles.list}>
        {fields.length > 0 ? (
          <RadioChips
            name="In view"
            options={fields.map(({ id, name }) => ({
              text: name,
              chosen: id === field?.id,
              choose: () => usePlayState.getState().set({ field: id }),
            }))}
          />
        ) : null}
        {field ? <Settings field={field} /> : null}
        {fields.length < MAX_FIELDS ? <ReadyMade onAdded={onClose} /> : null}
      </ScrollView>
    </Sheet>
  );
}

function Settings({ field }: { readonly field: PlayField }) {
  const { run } = useOpenPiece.getState();
  const change = (part: Partial<Omit<PlayField, 'id'>>): void => void run(setField, { field: field.id, change: part });
  return (
    <View style={styles.settings}>
      <NameField key={field.id} label="Name of the field" initial={field.name} onName={(name) => change({ name })} />
      <AxisChoice name="Across" axis={field.across} onChange={(across) => change({ across })} />
      <AxisChoice name="Up" axis={field.up} onChange={(up) => change({ up })} />
      <RadioChips
        name="On lifting it"
        options={LIFTS.map((lift) => ({
          text: LIFT_NAMES[lift],
          chosen: lift === field.lift,
          choose: () => change({ lift }),
        }))}
      />
      {field.lift === 'stay' ? null : (
        <RadioChips
          name="It takes"
          options={LIFT_BEATS.map((liftBeats) => ({
            text: beatsName(liftBeats),
            chosen: liftBeats === field.liftBeats,
            choose: () => change({ liftBeats }),
          }))}
        />
      )}
      <RadioChips
        name="Grid in time"
        options={GRIDS.map((grid) => ({
          text: grid === 'free' ? 'none' : grid,
          chosen: grid === field.grid,
          choose: () => change({ grid }),
        }))}
      />
      <Button
        icon="trash-2"
        mode="text"
        tone="danger"
        style={styles.remove}
        onPress={() => run(removeField, { field: field.id })}
      >
        {`Remove ${field.name}`}
      </Button>
    </View>
  );
}

const READY = EFFECTS.flatMap(({ id, fields }) => (fields ?? []).map((ready) => ({ effect: id, ready })));

function ReadyMade({ onAdded }: { readonly onAdded: () => void }) {
  const piece = usePiece();
  const { thrown } = usePlayState();
  const track = piece.tracks.find(({ id }) => id === thrown);
  const channels = track ? [MAIN, track.id] : [MAIN];
  return (
    <View>
      {channels.map((channel) => (
        <View key={channel}>
          <Text variant="headlineSmall" role="heading" aria-level={3} style={styles.head}>
            {`New, on ${channelName(piece, channel)}`}
          </Text>
          {READY.map(({ effect, ready }) => (
            <ListItem
              key={ready.id}
              title={ready.name}
              note={ready.purpose}
              label={`Add field ${ready.name} on ${channelName(piece, channel)}. ${ready.purpose}`}
              style={styles.item}
              onPress={() => {
                const ids = { field: newId(), slot: newId() };
                if (useOpenPiece.getState().run(addField, readyField(piece, channel, effect, ready, ids)))
                  usePlayState.getState().set({ field: ids.field });
                onAdded();
              }}
            />
          ))}
        </View>
      ))}
    </View>
  );
}

const styles = StyleSheet.create({
  list: { maxHeight: 600 },
  settings: { marginTop: 12 },
  head: { marginTop: 18 },
  item: { alignItems: 'flex-start', paddingVertical: 6 },
  remove: { marginTop: 10, alignSelf: 'flex-start' },
});
