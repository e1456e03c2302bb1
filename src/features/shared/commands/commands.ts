import { MONITORS } from '../../../core/engine/monitor';
import { setLoop, setSwitch } from '../../../core/piece/edits/channels';
import { findTrack } from '../../../core/piece/find';
import { barStart, nextBarLine, toBarBeat } from '../../../core/music/grid';
import { MAIN } from '../../../core/piece/piece';
import { tempoOf } from '../../../core/piece/tempoOf';
import { TEMPLATES } from '../../../core/piece/templates';
import { parseAddress, VIEW_NAMES, type ViewName } from '../../../data/address';
import { useAudition } from '../../../data/audition';
import { useOpenPiece } from '../../../data/openPiece';
import { keepPreferences, usePreferences } from '../../../data/preferences';
import { useRecording } from '../../../data/recording';
import { useView } from '../../../data/view';
import { useImports } from '../../studio/imports';
import { chooseFiles } from '../../studio/localFiles';
import { showFirstSteps } from '../../studio/firstSteps';
import { openNewPiece } from '../../studio/openPieceById';
import { SOUND_FILES } from '../../studio/soundFiles';
import { MONITOR_NAMES } from '../shell/MonitorChoice';
import { addEmptyTrack } from '../channels/channelActions';
import { MAX_ZOOM } from '../time/ZoomButtons';
import type { Command, CommandContext } from './command';
import {
  chooseChannel,
  chooseClip,
  chooseEffect,
  copySelection,
  cutSelection,
  duplicateSelection,
  moveSelection,
  hasCopied,
  nudgeClip,
  paste,
  removeSelection,
} from './selection';
import { reasonOf } from '../../../core/reasonOf';

const pieceNow = () => useOpenPiece.getState().piece!;
/** Keys that scroll elsewhere belong to the timeline where one is in view. */
const isNotIn =
  (...views: readonly ViewName[]) =>
  (): boolean =>
    !views.some((view) => view === parseAddress(location.pathname)?.view);
const chooseBelow = (direction: 1 | -1): void =>
  isNotIn('chain')() ? chooseChannel(direction) : chooseEffect(direction);
const hasTextSelected = (): boolean => (globalThis.getSelection?.()?.toString() ?? '') !== '';
const openPiece = () => useOpenPiece.getState();
const zoomBy = (by: number): void =>
  useView.setState(({ zoom }) => ({ zoom: Math.max(0, Math.min(MAX_ZOOM, zoom + by)) }));

const goBars = ({ studio }: CommandContext, way: 1 | -1): void =>
  studio.locate(nextBarLine(studio.beat, way, tempoOf(pieceNow())));

function switchChannel(which: 'mute' | 'solo', { studio }: CommandContext): void {
  const { channel } = useView.getState();
  const found = findTrack(pieceNow(), channel) ?? pieceNow().returns.find(({ id }) => id === channel);
  if (channel === MAIN || !found)
    openPiece().say('The main output can be neither muted nor heard alone. Choose a track.');
  else if (which === 'mute') studio.release({ kind: 'channel', channel, param: 'mute' }, !found.mute);
  else openPiece().run(setSwitch, { track: channel, which, on: !found.solo });
}

function loopRange(): void {
  const { range } = useView.getState();
  if (range) openPiece().run(setLoop, { on: true, ...range });
  else openPiece().say('No stretch is chosen: drag on the ruler first.');
}

const say = (error: unknown): void => openPiece().say(reasonOf(error));

const VIEW_TITLES = { piece: 'Piece', chain: 'Chain', moves: 'Moves', play: 'Play', shelf: 'Shelf' } as const;
const show = (sheet: 'piece' | 'add' | 'history' | 'gaps') => (context: CommandContext) => {
  context.go('piece');
  useView.setState({ sheet });
};

/** All commands of the interface. Play's own keys are in `playKeys.ts`: they are held. */
export const COMMANDS: readonly Command[] = [
  {
    id: 'commands',
    name: 'All commands and keys',
    group: 'Show',
    words: 'help search palette shortcuts',
    key: 'Mod+k',
    run: () => useView.setState({ sheet: 'commands' }),
  },
  {
    id: 'help',
    name: 'Help for this view',
    group: 'Show',
    words: 'what is this about explain manual',
    key: 'F1',
    run: () => useView.setState({ sheet: 'help' }),
  },
  {
    id: 'firstSteps',
    name: 'First steps',
    group: 'Show',
    words: 'tutorial guide tour begin learn',
    run: () => showFirstSteps().catch(say),
  },
  {
    id: 'settings',
    name: 'Settings',
    group: 'Show',
    words: 'preferences output device latency sample rate storage licences about light theme',
    key: 'Mod+,',
    run: () => useView.setState({ sheet: 'settings' }),
  },
  {
    id: 'play',
    name: 'Play or stop',
    group: 'Play',
    words: 'start pause',
    key: 'Space',
    run: (c) => c.studio.toggle(),
  },
  {
    id: 'toStart',
    name: 'Go to the start',
    group: 'Play',
    words: 'rewind beginning',
    key: 'Home',
    run: (c) => c.studio.locate(0),
  },
  {
    id: 'toEnd',
    name: 'Go to the end',
    group: 'Play',
    key: 'End',
    run: (c) => c.studio.locate(pieceNow().lengthBeats),
  },
  {
    id: 'barBack',
    name: 'A bar back',
    group: 'Play',
    key: 'PageUp',
    leavesKey: isNotIn('piece', 'moves'),
    run: (c) => goBars(c, -1),
  },
  {
    id: 'barForward',
    name: 'A bar forward',
    group: 'Play',
    key: 'PageDown',
    leavesKey: isNotIn('piece', 'moves'),
    run: (c) => goBars(c, 1),
  },
  {
    id: 'record',
    name: 'Record moves, on or off',
    group: 'Play',
    words: 'arm automation write',
    key: 'm',
    run: () => useRecording.setState(({ armed }) => ({ armed: !armed })),
  },
  {
    id: 'loop',
    name: 'Loop, on or off',
    group: 'Play',
    words: 'cycle repeat',
    key: 'l',
    run: () => openPiece().run(setLoop, { ...pieceNow().loop, on: !pieceNow().loop.on }),
  },
  {
    id: 'click',
    name: 'Click on the beats, on or off',
    group: 'Play',
    words: 'metronome',
    key: 'Shift+k',
    run: () => keepPreferences({ click: !usePreferences.getState().click }),
  },
  ...([0, 1, 2] as const).map((countInBars): Command => ({
    id: `countIn-${countInBars}`,
    name: `Count-in: ${countInBars === 0 ? 'none' : countInBars === 1 ? '1 bar' : '2 bars'}`,
    group: 'Play',
    words: 'pre-roll click metronome',
    run: () => keepPreferences({ countInBars }),
  })),
  { id: 'loopRange', name: 'Loop the chosen stretch', group: 'Play', words: 'cycle', key: 'Shift+l', run: loopRange },
  { id: 'undo', name: 'Undo', group: 'Edit', key: 'Mod+z', run: () => openPiece().undo() },
  { id: 'redo', name: 'Redo', group: 'Edit', key: 'Mod+Shift+z', run: () => openPiece().redo() },
  {
    id: 'cut',
    name: 'Cut the clip, stretch or effect',
    group: 'Edit',
    key: 'Mod+x',
    leavesKey: hasTextSelected,
    run: cutSelection,
  },
  {
    id: 'copy',
    name: 'Copy the clip, stretch or effect',
    group: 'Edit',
    key: 'Mod+c',
    leavesKey: hasTextSelected,
    run: () => void copySelection(),
  },
  {
    id: 'paste',
    name: 'Paste at the playhead or into the chain',
    group: 'Edit',
    key: 'Mod+v',
    leavesKey: () => !hasCopied(),
    run: (c) => paste(c.studio.beat),
  },
  {
    id: 'duplicate',
    name: 'Duplicate the clip, effect or track; repeat the stretch',
    group: 'Edit',
    key: 'Mod+d',
    run: duplicateSelection,
  },
  {
    id: 'chooseAll',
    name: 'Choose the whole piece on the ruler',
    group: 'Edit',
    words: 'select all stretch range',
    key: 'Mod+a',
    leavesKey: isNotIn('piece', 'moves'),
    run: () => useView.setState({ range: { start: 0, end: pieceNow().lengthBeats } }),
  },
  {
    id: 'remove',
    name: 'Remove the clip, effect or track; clear the stretch',
    group: 'Edit',
    words: 'delete',
    key: 'Delete',
    run: removeSelection,
  },
  {
    id: 'nextClip',
    name: 'Choose the next clip',
    group: 'Edit',
    key: 'ArrowRight',
    leavesKey: isNotIn('piece'),
    run: () => chooseClip(1),
  },
  {
    id: 'previousClip',
    name: 'Choose the clip before',
    group: 'Edit',
    key: 'ArrowLeft',
    leavesKey: isNotIn('piece'),
    run: () => chooseClip(-1),
  },
  {
    id: 'clipLater',
    name: 'Move the clip a beat later',
    group: 'Edit',
    words: 'nudge',
    key: 'Shift+ArrowRight',
    leavesKey: isNotIn('piece'),
    run: () => nudgeClip(1),
  },
  {
    id: 'clipEarlier',
    name: 'Move the clip a beat earlier',
    group: 'Edit',
    words: 'nudge',
    key: 'Shift+ArrowLeft',
    leavesKey: isNotIn('piece'),
    run: () => nudgeClip(-1),
  },
  {
    id: 'addSounds',
    name: 'Add sound files',
    group: 'Add',
    words: 'import open audio wav mp3',
    key: 'Mod+i',
    run: () => chooseFiles(SOUND_FILES, useImports.getState().add),
  },
  { id: 'addTrack', name: 'Add an empty track', group: 'Add', words: 'new', key: 'Shift+t', run: addEmptyTrack },
  { id: 'add', name: 'Add: sounds, tracks, returns', group: 'Add', words: 'send bus import', run: show('add') },
  {
    id: 'channelDown',
    name: 'The channel below; in Chain the next effect',
    group: 'Channel',
    key: 'ArrowDown',
    leavesKey: isNotIn('piece', 'chain'),
    run: () => chooseBelow(1),
  },
  {
    id: 'channelUp',
    name: 'The channel above; in Chain the effect before',
    group: 'Channel',
    key: 'ArrowUp',
    leavesKey: isNotIn('piece', 'chain'),
    run: () => chooseBelow(-1),
  },
  {
    id: 'moveUp',
    name: 'Move the track up; in Chain the effect',
    group: 'Channel',
    words: 'order sort reorder',
    key: 'Alt+ArrowUp',
    run: () => moveSelection(-1),
  },
  {
    id: 'moveDown',
    name: 'Move the track down; in Chain the effect',
    group: 'Channel',
    words: 'order sort reorder',
    key: 'Alt+ArrowDown',
    run: () => moveSelection(1),
  },
  {
    id: 'mute',
    name: 'Mute the channel in view',
    group: 'Channel',
    key: 'Shift+m',
    run: (c) => switchChannel('mute', c),
  },
  {
    id: 'solo',
    name: 'Hear the channel in view alone',
    group: 'Channel',
    words: 'solo',
    key: 'Shift+s',
    run: (c) => switchChannel('solo', c),
  },
  {
    id: 'strip',
    name: 'Level, sends and tools of the channel',
    group: 'Channel',
    words: 'pan fader meters compare snapshots wide',
    run: (c) => {
      c.go('chain');
      useView.setState({ strip: true, slot: null });
    },
  },
  {
    id: 'piece',
    name: 'Name, open, copy or remove a piece',
    group: 'Piece',
    words: 'rename save archive duplicate',
    key: 'Mod+o',
    run: show('piece'),
  },
  {
    id: 'files',
    name: 'Write files: the piece, stems, prints',
    group: 'Piece',
    words: 'export bounce render wav flac download',
    key: 'Mod+e',
    run: () => useView.setState({ sheet: 'files' }),
  },
  { id: 'history', name: 'History', group: 'Piece', words: 'undo edits', key: 'Shift+h', run: show('history') },
  {
    id: 'gaps',
    name: 'Gaps and what could fill them',
    group: 'Piece',
    words: 'riser transition fill',
    key: 'Shift+g',
    run: show('gaps'),
  },
  ...TEMPLATES.map((template): Command => ({
    id: `new-${template.id}`,
    name: `New piece: ${template.name}`,
    group: 'Piece',
    words: template.says,
    run: () => void openNewPiece(template).catch(say),
  })),
  ...VIEW_NAMES.map((view, i): Command => ({
    id: `go-${view}`,
    name: VIEW_TITLES[view],
    group: 'Go to',
    words: 'view show',
    key: `Alt+${i + 1}`,
    run: ({ go }) => go(view),
  })),
  { id: 'zoomIn', name: 'Show less time', group: 'Show', words: 'zoom in', key: '+', run: () => zoomBy(1) },
  { id: 'zoomOut', name: 'Show more time', group: 'Show', words: 'zoom out', key: '-', run: () => zoomBy(-1) },
  ...MONITORS.map((monitor): Command => ({
    id: `listen-${monitor}`,
    name: `Listen: ${MONITOR_NAMES[monitor]}`,
    group: 'Play',
    words: 'monitor headphones',
    run: () => useAudition.setState({ monitor }),
  })),
  { id: 'day', name: 'Light: day', group: 'Show', words: 'theme bright', run: (c) => c.chooseLight('day') },
  { id: 'night', name: 'Light: night', group: 'Show', words: 'theme dark', run: (c) => c.chooseLight('night') },
  {
    id: 'letGo',
    name: 'Let go of what is chosen',
    group: 'Show',
    words: 'deselect',
    key: 'Escape',
    run: () => useView.setState({ clip: null, range: null }),
  },
];

/** Opens a recipe over the chosen stretch or clip; over the four bars from the playhead where there is none. */
export function openRecipe({ go, studio }: CommandContext, recipe: string): void {
  const { clip, range } = useView.getState();
  const tempo = tempoOf(pieceNow());
  const { bar } = toBarBeat(studio.beat, tempo);
  const four = { start: barStart(bar, tempo), end: barStart(bar + 4, tempo) };
  go('piece');
  useView.setState({ recipe, ...(clip === null && range === null ? { range: four } : {}) });
}

/** Additional keys of commands, which cannot be changed. */
export const SECOND_KEYS: Readonly<Record<string, string>> = { '?': 'commands', 'Mod+y': 'redo', Backspace: 'remove' };
