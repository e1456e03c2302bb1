import { useState } from 'react';
import { StyleSheet, View } from 'react-native';
import { Card } from 'react-native-paper';
import { effectOf } from '../../core/effects/catalogue';
import { barStart, toBarBeat } from '../../core/music/grid';
import { followedAt, type FollowedLevels } from '../../core/automation/follower';
import { followersOf, laneFromLinks } from '../../core/piece/links/link';
import { follow } from '../../audio/following';
import {
  CURVE,
  DEPTH,
  MODULATOR_KINDS,
  START_FORM,
  modulatorParams,
  type Modulator,
} from '../../core/automation/modulator';
import { linksToMoves, removeLink, setLink, setModulator } from '../../core/piece/edits/links';
import { contextOf, findSlot, paramOf } from '../../core/piece/find';
import { MACRO_LEVEL, macroParam, MAIN, type Link, type Piece } from '../../core/piece/piece';
import type { ParamValue } from '../../core/params/param';
import { useOpenPiece } from '../../data/openPiece';
import { useSession } from '../../data/session';
import { NameField } from '../../ui/NameField';
import { ChoiceRail, Rail } from '../../ui/Rail';
import { Button } from '../../ui/Button';
import { Chip } from '../../ui/Chip';
import { IconButton } from '../../ui/IconButton';
import { Text } from '../../ui/Text';
import { ParamRail } from '../chain/ParamRail';
import { usePiece, useStudio } from '../studio/StudioProvider';
import { ControllerButton } from '../controller/ControllerButton';
import { FollowedLevel } from './FollowedLevel';
import { KIND_NAMES } from './kinds';
import { LinkRange } from './LinkRange';
import { ModulatorCurve } from './ModulatorCurve';
import { StepRow } from './StepRow';
import { newId } from '../../data/newId';

/** "Filter cutoff", or "Pan". */
export function targetName(piece: Piece, { target }: Pick<Link, 'target'>): string {
  const label = paramOf(piece, target)?.label ?? 'gone';
  const slot = target.effect === null ? undefined : findSlot(piece, target.channel, target.effect);
  return slot ? `${effectOf(slot.effect).name} ${label.toLowerCase()}` : label;
}

/** One link: what turns, drawn as it turns, how far and how fast; its modulator may turn others along with it. */
export function LinkCard({ link }: { readonly link: Link }) {
  const piece = usePiece();
  const { studio } = useStudio();
  const range = useSession((session) => session.range);
  const [naming, setNaming] = useState(false);
  const { run, say } = useOpenPiece.getState();
  const modulator = piece.modulators.find(({ id }) => id === link.modulator);
  if (!modulator) return null;
  const name = targetName(piece, link);
  const others = piece.links.filter((other) => other.modulator === modulator.id && other.id !== link.id);
  const write = async (): Promise<void> => {
    const sounds = [...studio.sounds.values()];
    const levels = new Map<string, FollowedLevels>();
    for (const one of followersOf(piece, link.target)) levels.set(one.id, await follow(piece, one, sounds));
    // The piece may have been changed while the followers were worked out.
    const now = useOpenPiece.getState().piece ?? piece;
    const [from, to] = range ? [range.start, range.end] : [0, now.lengthBeats];
    const lane = laneFromLinks(now, link.target, from, to, newId(), ({ id }) => {
      const found = levels.get(id);
      return (beat) => (found ? followedAt(found, beat) : 0);
    });
    if (lane) run(linksToMoves, { target: link.target, lane, ...(range ? { within: range } : {}) });
  };
  const change = (part: Partial<Modulator>): boolean => run(setModulator, { modulator: modulator.id, change: part });
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
        <Button
          label={`Write the links of ${name} as moves`}
          onPress={() => void write().catch((error: unknown) => say(String(error)))}
        >
          {range ? 'as moves here' : 'as moves'}
        </Button>
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
        {MODULATOR_KINDS.map((kind) => (
          <Chip
            key={kind}
            role="radio"
            label={`${modulator.name}: ${KIND_NAMES[kind]}`}
            chosen={modulator.kind === kind}
            tone="coralInk"
            onPress={() => change({ kind })}
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

/** What it does: a macro's rail, a follower's level, the curve of all others. */
function Turning({ modulator, link }: { readonly modulator: Modulator; readonly link: Link }) {
  if (modulator.kind === 'macro') return <MacroRail modulator={modulator} />;
  return modulator.kind === 'follower' ? (
    <FollowedLevel modulator={modulator} />
  ) : (
    <ModulatorCurve modulator={modulator} link={link} />
  );
}

/** The macro itself: ridden, recorded and typed as any rail. */
function MacroRail({ modulator }: { readonly modulator: Modulator }) {
  const target = { channel: MAIN, effect: null, param: macroParam(modulator.id) };
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

interface PartProps {
  readonly modulator: Modulator;
  readonly change: (part: Partial<Modulator>) => boolean;
}

/** Whether it goes through once, from the playhead's bar on, or again and again. */
function Once({ modulator, change }: PartProps) {
  const piece = usePiece();
  const { studio } = useStudio();
  const once = modulator.onceFrom;
  const bar = toBarBeat(once ?? studio.beat, piece.tempo).bar;
  return (
    <Chip
      role="switch"
      label={`${modulator.name} runs once`}
      chosen={once !== undefined}
      tone="coralInk"
      style={styles.roll}
      onPress={() => change({ onceFrom: once === undefined ? barStart(bar, piece.tempo) : undefined })}
    >
      {once === undefined ? 'again and again' : `once, from bar ${bar} on`}
    </Chip>
  );
}

function Following({ modulator, change }: PartProps) {
  const piece = usePiece();
  const rail = (id: 'attack' | 'release', value: number) => (
    <Rail
      param={modulatorParams[id]}
      value={value}
      context={contextOf(piece)}
      look="plain"
      onTouch={() => undefined}
      onSet={(set: ParamValue) =>
        typeof set === 'number' && change(id === 'attack' ? { attackMs: set } : { releaseMs: set })
      }
    />
  );
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
      {rail('attack', modulator.attackMs ?? 10)}
      {rail('release', modulator.releaseMs ?? 250)}
    </>
  );
}

function Settings({ modulator, change }: PartProps) {
  const context = contextOf(usePiece());
  const rail = (id: 'phase' | 'glide') => (
    <Rail
      param={modulatorParams[id]}
      value={modulator[id]}
      context={context}
      look="plain"
      onTouch={() => undefined}
      onSet={(value: ParamValue) => typeof value === 'number' && change({ [id]: value })}
    />
  );
  return (
    <>
      {modulator.kind === 'follower' ? <Following modulator={modulator} change={change} /> : null}
      {modulator.kind === 'macro' || modulator.kind === 'follower' ? null : (
        <Rail
          param={modulatorParams.rate}
          value={modulator.rate}
          context={context}
          look="plain"
          onTouch={() => undefined}
          onSet={(value) => typeof value !== 'boolean' && change({ rate: value })}
        />
      )}
      {modulator.kind === 'lfo' ? (
        <ChoiceRail
          param={modulatorParams.shape}
          value={modulator.shape}
          onSet={(value) => change({ shape: value as Modulator['shape'] })}
        />
      ) : null}
      {modulator.kind === 'lfo' && modulator.shape === 'drawn' ? (
        <StepRow noun="point" steps={modulator.form ?? START_FORM} onChange={(form) => change({ form: [...form] })} />
      ) : null}
      {modulator.kind === 'lfo' ? rail('phase') : null}
      {modulator.kind === 'steps' ? (
        <StepRow noun="step" steps={modulator.steps} onChange={(steps) => change({ steps: [...steps] })} />
      ) : null}
      {modulator.kind === 'steps' ? rail('glide') : null}
      {modulator.kind === 'steps' ? (
        <Rail
          param={modulatorParams.chance}
          value={modulator.chance ?? 1}
          context={context}
          look="plain"
          onTouch={() => undefined}
          onSet={(value: ParamValue) => typeof value === 'number' && change({ chance: value })}
        />
      ) : null}
      {modulator.kind === 'lfo' || modulator.kind === 'steps' ? <Once modulator={modulator} change={change} /> : null}
      {modulator.kind === 'drift' || (modulator.kind === 'lfo' && modulator.shape === 'random') ? (
        <Button
          label={`Another ${modulator.kind === 'drift' ? 'drift' : 'row of values'} for ${modulator.name}`}
          icon="shuffle"
          style={styles.roll}
          onPress={() => change({ roll: Math.floor(Math.random() * 0xffffffff) })}
        >
          {modulator.kind === 'drift' ? 'another drift' : 'other values'}
        </Button>
      ) : null}
    </>
  );
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
