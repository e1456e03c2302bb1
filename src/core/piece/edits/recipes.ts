import * as z from 'zod';
import { defineEdit, EditRefused } from '../edit';
import { channelIds } from '../find';
import { laneSchema, soundInfoSchema, trackSchema } from '../piece';
import { makeRoom } from './channels';
import { putLane } from './lanes';

/** What a recipe made: a track with its clips and effects, and the moves on it; one undo takes all of it away. */
export const layRecipe = defineEdit({
  name: 'layRecipe',
  args: z.strictObject({ what: z.string().min(1).max(60), track: trackSchema, lanes: z.array(laneSchema), sounds: soundInfoSchema }),
  label: ({ what, track }) => `${what}: ${track.name}`,
  apply: (draft, { track, lanes, sounds }) => {
    if (channelIds(draft).includes(track.id)) throw new EditRefused('That track is in the piece already.');
    draft.tracks.push(track);
    Object.assign(draft.sounds, sounds);
    for (const lane of lanes) putLane(draft, lane);
    makeRoom(draft, track.clips);
  },
});
