import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Card } from 'react-native-paper';
import { effectOf } from '../../../core/effects/catalogue';
import { barStart, toBarBeat } from '../../../core/music/grid';
import { tempoOf } from '../../../core/piece/tempoOf';
import { followedAt, type FollowedLevels } from '../../../core/automation/follower';
import { laneFromLinks, modulatorsOf } from '../../../core/piece/links/link';
import { follow } from '../../../audio/following';
import {
  CURVE,
  DEPTH,
  START_FORM,
  modulatorParams,
  type Follower,
  type Lfo,
  type Macro,
  type Modulator,
  type ModulatorChange,
  type Steps,
} from '../../../core/automation/modulator';
import { linksToMoves, removeLink, setLink, setModulator } from '../../../core/piece/edits/links';
import { contextOf, effectOfTarget, findSlot, paramOf } from '../../../core/piece/find';
import { MACRO_LEVEL, MAIN, type Link, type Piece, type Target } from '../../../core/piece/piece';
import { useOpenPiece } from '../../../data/openPiece';
import { useView } from '../../../data/view';
import { NameField } from '../../../ui/NameField';
import { ChoiceRail, Rail } from '../../../ui/Rail';
import { Button } from '../../../ui/Button';
import { Chip } from '../../../ui/Chip';
import { IconButton } from '../../../ui/IconButton';
import { Text } from '../../../ui/Text';
import { ParamRail } from '../channels/ParamRail';
import { usePiece, useStudio } from '../../studio/StudioProvider';
import { ControllerButton } from '../controller/ControllerButton';
import { FollowedLevel } from './FollowedLevel';
import { KIND_NAMES, kindsFor } from './kinds';
import { LinkRange } from './LinkRange';
import { ModulatorCurve } from './ModulatorCurve';
import { OwnRail, type ModulatorSettingsProps } from './OwnRail';
import { RunSettings, RunSteps } from './RunSettings';
import { StepRow } from './StepRow';
import { newId } from '../../../data/newId';
import { reasonOf } from '../../../core/reasonOf';

/** "Filter cutoff", or "Pan". */
export function targetName(piece: Piece, { target }: Pick<Link, 'target'>): string {
  const label = paramOf(piece, target)?.label ?? 'gone';
  const slot = target.kind === 'effect' ? findSlot(piece, target.channel, target.effect) : undefined;
  return slot ? `${effectOf(slot.effect).name} ${label.toLowerCase()}` : label;
}

/** One link: its modulator with a moving curve, depth and rate; the modulator may have other links. */
export function LinkCard({ link }: { readonly link: Link }) {
  const piece = usePiece();
  const { studio } = useStudio();
  const range = useView((view) => view.range);
  const [naming, setNaming] = useState(false);
  const { run, say } = useOpenPiece.getState();
  const modulator = piece.modulators.find(({ id }) => id === link.modulator);
  if (!modulator) return null;
  const name = targetName(piece, link);
  const others = piece.links.filter((other) => other.modulator === modulator.id && other.id !== link.id);
  const write = async (): Promise<void> => {
    const turning = modulatorsOf(piece, link.target);
    if (turning.some(({ kind }) => kind === 'run')) {
      say(
        'A run begins with its hold, so it has no place in the piece: record the hold, and what it does is played back.',
      );
      return;
    }
    const sounds = [...studio.sounds.values()];
    const levels = new Map<string, FollowedLevels>();
    for (const one of turning) if (one.kind === 'follower') levels.set(one.id, await follow(piece, one, sounds));
    // The piece may have been changed while the followers were computed.
    const now = useOpenPiece.getState().piece ?? piece;
    const [from, to] = range ? [range.start, range.end] : [0, now.lengthBeats];
    const lane = laneFromLinks(now, link.target, from, to, newId(), ({ id }) => {
      const found = levels.get(id);
      return (beat) => (found ? followedAt(found, beat) : 0);
    });
    if (lane) run(linksToMoves, { target: link.target, lane, ...(range ? { within: range } : {}) });
  };
  const change = (part: ModulatorChange): boolean => run(setModulator, { modulator: modulator.id, change: part });
  return (
    <Card
      mode="outlined"
      role="group"
      aria-label={`${modulator.name} turns ${name}`}
      style={styles.card}
      contentStyle={styles.within}
    >
      <View style={styles.head}>
        <View style={styles.names}>
          <Text variant="titleSmall" tone="coralInk" numberOfLines={1}>{`∿ ${name}`}</Text>
          <Text variant="bodySmall" numberOfLines={2}>
            {others.length > 0
              ? `${modulator.name}, which also turns ${others.map((other) => targetName(piece, other).toLowerCase()).join(', ')}`
              : modulator.name}
          </Text>
        </View>
        <IconButton icon="edit-2" label={`Rename ${modulator.name}`} tone="mute" onPress={() => setNaming(!naming)} />
        {modulator.kind === 'run' ? null : (
          <Button
            label={`Write the links of ${name} as moves`}
            onPress={() => void write().catch((error: unknown) => say(reasonOf(error)))}
          >
            {range ? 'as moves here' : 'as moves'}
          </Button>
        )}
        <IconButton
          icon="x"
          label={`Remove ${modulator.name} from ${name}`}
          tone="mute"
          onPress={() => run(removeLink, { link: link.id })}
        />
      </View>
      {naming ? (
        <NameField
          label="Name of what turns"
          initial={modulator.name}
          action="Rename"
          onName={(called) => change({ name: called }) && setNaming(false)}
        />
      ) : null}
      <Turning modulator={modulator} link={link} />
      <View role="radiogroup" aria-label={`Kind of ${modulator.name}`} style={styles.kinds}>
        {kindsFor(piece, link.target).map((kind) => (
          <Chip
            key={kind}
            role="radio"
            label={`${modulator.name}: ${KIND_NAMES[kind]}`}
            chosen={modulator.kind === kind}
            tone="coralInk"
            onPress={() => change(kind === 'run' ? { kind, hold: effectOfTarget(link.target) ?? undefined } : { kind })}
          >
            {KIND_NAMES[kind]}
          </Chip>
        ))}
      </View>
      <Rail
        param={DEPTH}
        value={link.depth}
        context={contextOf(piece)}
        look="plain"
        onTouch={() => undefined}
        onSet={(value) => typeof value === 'number' && run(setLink, { link: link.id, depth: value })}
      />
      <Rail
        param={CURVE}
        value={link.curve ?? 0}
        context={contextOf(piece)}
        look="plain"
        onTouch={() => undefined}
        onSet={(value) => typeof value === 'number' && run(setLink, { link: link.id, curve: value })}
      />
      <LinkRange link={link} name={name} />
      <Settings modulator={modulator} change={change} />
    </Card>
  );
}

/** The modulator's output: a macro's rail, a follower's level, the curve of all others. */
function Turning({ modulator, link }: { readonly modulator: Modulator; readonly link: Link }) {
  switch (modulator.kind) {
    case 'macro':
      return <MacroRail modulator={modulator} />;
    case 'follower':
      return <FollowedLevel modulator={modulator} />;
    case 'run':
      return <RunSteps modulator={modulator} />;
    default:
      return <ModulatorCurve modulator={modulator} link={link} />;
  }
}

/** The macro itself: ridden, recorded and typed as any rail. */
function MacroRail({ modulator }: { readonly modulator: Macro }) {
  const target: Target = { kind: 'macro', macro: modulator.id };
  return (
    <View>
      <ParamRail
        target={target}
        param={{ ...MACRO_LEVEL, label: modulator.name }}
        value={modulator.level}
        look="plain"
      />
      <View style={styles.kinds}>
        <ControllerButton channel={MAIN} target={target} />
      </View>
    </View>
  );
}

/** Whether it runs once, from the playhead's bar on, or repeats. */
function Once({ modulator, change }: ModulatorSettingsProps<Lfo | Steps>) {
  const piece = usePiece();
  const { studio } = useStudio();
  const once = modulator.onceFrom;
  const bar = toBarBeat(once ?? studio.beat, tempoOf(piece)).bar;
  return (
    <Chip
      role="switch"
      label={`${modulator.name} runs once`}
      chosen={once !== undefined}
      tone="coralInk"
      style={styles.roll}
      onPress={() => change({ onceFrom: once === undefined ? barStart(bar, tempoOf(piece)) : undefined })}
    >
      {once === undefined ? 'again and again' : `once, from bar ${bar} on`}
    </Chip>
  );
}

function FollowerSettings({ modulator, change }: ModulatorSettingsProps<Follower>) {
  const piece = usePiece();
  return (
    <>
      <View role="radiogroup" aria-label={`${modulator.name} follows`} style={styles.tracks}>
        {piece.tracks.map(({ id, name }) => (
          <Chip
            key={id}
            role="radio"
            label={`${modulator.name} follows ${name}`}
            chosen={modulator.follows === id}
            tone="sandInk"
            onPress={() => change({ follows: id })}
          >
            {name}
          </Chip>
        ))}
      </View>
      <OwnRail param={modulatorParams.attack} value={modulator.attackMs} onSet={(attackMs) => change({ attackMs })} />
      <OwnRail
        param={modulatorParams.release}
        value={modulator.releaseMs}
        onSet={(releaseMs) => change({ releaseMs })}
      />
    </>
  );
}

function LfoSettings({ modulator, change }: ModulatorSettingsProps<Lfo>) {
  return (
    <>
      <ChoiceRail
        param={modulatorParams.shape}
        value={modulator.shape}
        onSet={(shape) => change({ shape: shape as Lfo['shape'] })}
      />
      {modulator.shape === 'drawn' ? (
        <StepRow noun="point" steps={modulator.form ?? START_FORM} onChange={(form) => change({ form: [...form] })} />
      ) : null}
      <OwnRail param={modulatorParams.phase} value={modulator.phase} onSet={(phase) => change({ phase })} />
      <Once modulator={modulator} change={change} />
      {modulator.shape === 'random' ? (
        <RollButton what="row of values" name={modulator.name} change={change}>
          other values
        </RollButton>
      ) : null}
    </>
  );
}

function StepsSettings({ modulator, change }: ModulatorSettingsProps<Steps>) {
  return (
    <>
      <StepRow noun="step" steps={modulator.steps} onChange={(steps) => change({ steps: [...steps] })} />
      <OwnRail param={modulatorParams.glide} value={modulator.glide} onSet={(glide) => change({ glide })} />
      <OwnRail param={modulatorParams.chance} value={modulator.chance} onSet={(chance) => change({ chance })} />
      <Once modulator={modulator} change={change} />
    </>
  );
}

/** Draws all random values anew. */
function RollButton({
  what,
  name,
  change,
  children,
}: {
  readonly what: string;
  readonly name: string;
  readonly change: ModulatorSettingsProps<Modulator>['change'];
  readonly children: string;
}) {
  return (
    <Button
      label={`Another ${what} for ${name}`}
      icon="shuffle"
      style={styles.roll}
      onPress={() => change({ roll: Math.floor(Math.random() * 0xffffffff) })}
    >
      {children}
    </Button>
  );
}

function Settings({ modulator, change }: ModulatorSettingsProps<Modulator>) {
  switch (modulator.kind) {
    case 'macro':
      return null;
    case 'follower':
      return <FollowerSettings modulator={modulator} change={change} />;
    case 'run':
      return <RunSettings modulator={modulator} change={change} />;
    default:
      return (
        <>
          <OwnRail param={modulatorParams.rate} value={modulator.rate} onSet={(rate) => change({ rate })} />
          {modulator.kind === 'lfo' ? <LfoSettings modulator={modulator} change={change} /> : null}
          {modulator.kind === 'steps' ? <StepsSettings modulator={modulator} change={change} /> : null}
          {modulator.kind === 'drift' ? (
            <RollButton what="drift" name={modulator.name} change={change}>
              another drift
            </RollButton>
          ) : null}
        </>
      );
  }
}

const styles = StyleSheet.create({
  card: { borderRadius: 16 },
  within: { paddingHorizontal: 12, paddingVertical: 8, gap: 4 },
  head: { flexDirection: 'row', alignItems: 'center', gap: 4 },
  names: { flex: 1, minWidth: 0 },
  kinds: { flexDirection: 'row', flexWrap: 'wrap', gap: 6, paddingTop: 4 },
  roll: { alignSelf: 'flex-start' },
  tracks: { flexDirection: 'row', flexWrap: 'wrap', gap: 6, paddingTop: 4 },
});
