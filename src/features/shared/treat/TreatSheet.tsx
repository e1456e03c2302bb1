import { useEffect, useMemo, useRef, useState } from 'react';
import { ScrollView, StyleSheet, View } from 'react-native';
import { measureLoads } from '../../../audio/loads';
import { effectOf } from '../../../core/effects/catalogue';
import { newSlot } from '../../../core/piece/edits/chain';
import { clipsOfSound, endFaded, sourceOf, wholeSourceOf } from '../../../core/piece/edits/treat';
import { contextOf, findClip } from '../../../core/piece/find';
import type { Clip, Track, TreatStep } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { Sheet } from '../../../ui/Sheet';
import { Button } from '../../../ui/Button';
import { Chip } from '../../../ui/Chip';
import { Text } from '../../../ui/Text';
import { EffectPicker } from '../channels/EffectChoices';
import { HearRecipe } from '../recipes/HearRecipe';
import { useMaking } from '../recipes/useMaking';
import { usePiece, useStudio } from '../../studio/StudioProvider';
import { StepCard } from './StepCard';
import { renderSteps, treat } from './treatClips';
import { newId } from '../../../data/newId';

interface TreatSheetProps {
  readonly clip: Clip;
  readonly track: Track;
  readonly visible: boolean;
  readonly onClose: () => void;
}

/** Treatments of a clip, done beforehand: a list of steps over a source that stays as it is. */
export function TreatSheet({ clip, track, visible, onClose }: TreatSheetProps) {
  return (
    <Sheet title={`Treat ${clip.name}`} visible={visible} onClose={onClose}>
      {visible ? <Steps clip={clip} track={track} onDone={onClose} /> : null}
    </Sheet>
  );
}

/** Growth below which a clip counts as unchanged in length. */
const LONGER_SECONDS = 0.05;

const freshStretch = (): TreatStep => ({
  kind: 'stretch',
  id: newId(),
  on: true,
  times: 1,
  semitones: 0,
  keepPitch: true,
  formants: 'keep',
  formantSemitones: 0,
});

/** Reports the result of a treatment; offers to cut clips whose tail made them longer. */
function sayTreated(done: string, saved: string, before: readonly Clip[]): void {
  const { piece, say, run } = useOpenPiece.getState();
  const grown = before.flatMap(({ id, lengthSeconds }) => {
    const by = (piece && findClip(piece, id)?.clip.lengthSeconds) ?? lengthSeconds;
    return by > lengthSeconds + LONGER_SECONDS ? [{ clip: id, lengthSeconds, by: by - lengthSeconds }] : [];
  });
  if (grown.length === 0) return say(`${done} The source is untouched.${saved}`);
  const most = Math.max(...grown.map(({ by }) => by)).toFixed(1);
  const who = grown.length === 1 ? 'It rings' : `${grown.length} of them ring`;
  say(`${done} ${who} on for up to ${most} s longer than before.${saved}`, {
    label: 'Fade at the old end',
    act: () => run(endFaded, { ends: grown.map(({ clip, lengthSeconds }) => ({ clip, lengthSeconds })) }),
  });
}

function Steps({ clip, track, onDone }: { readonly clip: Clip; readonly track: Track; readonly onDone: () => void }) {
  const piece = usePiece();
  const { studio } = useStudio();
  const [steps, setSteps] = useState<readonly TreatStep[]>(clip.treated?.steps ?? []);
  const [whole, setWhole] = useState(false);
  const [picking, setPicking] = useState(false);
  const [share, setShare] = useState(0);
  const { busy, trouble, doing, sounding, hear } = useMaking();
  const cancel = useRef<() => void>(() => undefined);
  useEffect(() => () => cancel.current(), []);
  const started = (stop: () => void): void => void (cancel.current = stop);
  const source = sourceOf(clip);
  const same = clipsOfSound(piece, source.sound);
  const load = useLoad(steps);
  const put = (step: TreatStep): void => setSteps((before) => [...before, step]);
  const move = (at: number, by: -1 | 1): void =>
    setSteps((before) => before.map((step, i) => (i === at ? before[at + by]! : i === at + by ? before[at]! : step)));
  const apply = (clips: readonly Clip[]): Promise<void> =>
    doing(async () => {
      setShare(0);
      if (!(await treat(studio, piece, clips, steps, whole, setShare, started))) return;
      const who = clips.length === 1 ? clip.name : `${clips.length} clips`;
      const saved =
        load > 0.001
          ? ` It costs nothing while playing; as effects it would take ${(100 * load).toFixed(1)} % of the time.`
          : '';
      sayTreated(steps.length === 0 ? `${who}: the sound as it was.` : `${who} treated.`, saved, clips);
      onDone();
    });
  const tryIt = (): Promise<void> =>
    hear(
      async () => [...((await renderSteps(studio, piece, source, steps, setShare, started))?.channels ?? [])],
      piece.sampleRate,
    );
  const chain = track.chain.filter(({ on }) => on);
  const barSeconds = (piece.tempo.beatsPerBar * 60) / piece.tempo.bpm;
  if (picking) {
    return (
      <ScrollView style={styles.body}>
        <Button label="Back to the steps" icon="chevron-left" style={styles.start} onPress={() => setPicking(false)}>
          Back
        </Button>
        <EffectPicker
          verb="Treat with"
          onPick={(effect, preset) => {
            put({
              kind: 'chain',
              id: newId(),
              on: true,
              name: effectOf(effect).name,
              rings: true,
              chain: [newSlot(newId(), effect, preset)],
            });
            setPicking(false);
          }}
        />
      </ScrollView>
    );
  }
  return (
    <>
      <ScrollView style={styles.body}>
        <Text variant="bodySmall">
          {steps.length === 0
            ? 'No steps yet. What is done here costs nothing while playing, and every step can be changed or taken off later; the source stays as it is.'
            : 'From the source through each step, in this order.'}
        </Text>
        <View style={styles.list}>
          {steps.map((step, i) => (
            <StepCard
              key={step.id}
              step={step}
              place={i}
              last={i === steps.length - 1}
              context={contextOf(piece)}
              partSeconds={source.lengthSeconds}
              barSeconds={barSeconds}
              onChange={(next) => setSteps((before) => before.map((other) => (other.id === next.id ? next : other)))}
              onMove={(by) => move(i, by)}
              onRemove={() => setSteps((before) => before.filter(({ id }) => id !== step.id))}
            />
          ))}
        </View>
        <View role="group" aria-label="Add a step" style={styles.chips}>
          <Button label="Add pitch and length" icon="plus" onPress={() => put(freshStretch())}>
            pitch, length
          </Button>
          <Button label="Add an effect" icon="plus" onPress={() => setPicking(true)}>
            effect …
          </Button>
          {chain.length > 0 ? (
            <Button
              label="Add the effects of this track"
              icon="plus"
              onPress={() =>
                put({
                  kind: 'chain',
                  id: newId(),
                  on: true,
                  name: chain
                    .map(({ effect }) => effectOf(effect).name)
                    .join(', ')
                    .slice(0, 120),
                  rings: true,
                  chain: structuredClone(chain),
                })
              }
            >
              this track’s effects
            </Button>
          ) : null}
        </View>
        {wholeSourceOf(piece, clip).lengthSeconds > source.lengthSeconds + 0.01 && steps.length > 0 ? (
          <Chip
            role="switch"
            label="Treat the whole sound"
            chosen={whole}
            tone="plum"
            style={styles.start}
            onPress={() => setWhole(!whole)}
          >
            {whole ? 'the whole sound: edges can be drawn out' : 'only what the clip plays'}
          </Chip>
        ) : null}
        {trouble ? (
          <Text variant="bodySmall" tone="danger" role="alert">
            {trouble}
          </Text>
        ) : null}
        {load > 0.001 ? (
          <Text variant="bodySmall">{`Gives back ${(100 * load).toFixed(1)} % of the time there is while playing.`}</Text>
        ) : null}
      </ScrollView>
      <View style={styles.chips}>
        <HearRecipe
          name="the clip treated"
          sounding={sounding}
          disabled={busy || steps.length === 0}
          onPress={() => void tryIt()}
        />
        <Button
          label="Treat this clip"
          tone="plum"
          mode="contained"
          disabled={busy || (steps.length === 0 && !clip.treated)}
          onPress={() => void apply([clip])}
        >
          {busy ? `Working … ${Math.round(share * 100)} %` : 'This clip'}
        </Button>
        {same.length > 1 ? (
          <Button
            label={`Treat every clip of this sound, ${same.length}`}
            tone="plum"
            disabled={busy || (steps.length === 0 && !clip.treated)}
            onPress={() => void apply(same)}
          >{`All ${same.length} of this sound`}</Button>
        ) : null}
        {busy ? (
          <Button label="Stop treating" icon="x" onPress={() => cancel.current()}>
            Stop
          </Button>
        ) : null}
      </View>
    </>
  );
}

/** Share of the audio thread's time that the effects in the steps would take. */
function useLoad(steps: readonly TreatStep[]): number {
  const piece = usePiece();
  const { studio } = useStudio();
  const [shares, setShares] = useState<ReadonlyMap<string, number>>(new Map());
  const slots = useMemo(() => steps.flatMap((step) => (step.kind === 'chain' && step.on ? step.chain : [])), [steps]);
  const unknown = useMemo(() => slots.filter(({ id }) => !shares.has(id)), [slots, shares]);
  useEffect(() => {
    // Measured once for each effect: the load hardly depends on its values.
    if (unknown.length === 0) return undefined;
    return measureLoads(unknown, contextOf(piece), [...studio.sounds.values()], (slot, share) =>
      setShares((before) => new Map([...before, [slot, share]])),
    );
  }, [unknown, piece, studio]);
  return slots.reduce((sum, { id }) => sum + (shares.get(id) ?? 0), 0);
}

const styles = StyleSheet.create({
  body: { maxHeight: 480 },
  list: { marginTop: 10 },
  start: { alignSelf: 'flex-start', marginBottom: 8 },
  chips: { flexDirection: 'row', flexWrap: 'wrap', gap: 8, paddingVertical: 8 },
});
