import { SPEED_OF_SOUND } from '../../dsp/imageSources';
import { OCTAVES } from '../../impulses/materials';
import { eyringSeconds } from '../../impulses/room';
import type { ParamValues, ValueContext } from '../../params/param';
import { dragEffect } from '../handles';
import type { RoomPicture } from '../pictures';
import { describedRoom } from './order';
import { convolverParams } from './params';

/** The described room from above, with the path of the first reflection of each of the four walls. */
export function roomPicture(values: ParamValues, context: ValueContext): RoomPicture {
  const room = describedRoom(values, context);
  const [width, depth, height] = room.box;
  const [source, listener] = [
    { x: room.source[0], y: room.source[1] },
    { x: room.listener[0], y: room.listener[1] },
  ];
  const rise = room.source[2] - room.listener[2];
  const direct = Math.hypot(source.x - listener.x, source.y - listener.y, rise);
  const mirrored = [
    { x: -source.x, y: source.y },
    { x: 2 * width - source.x, y: source.y },
    { x: source.x, y: -source.y },
    { x: source.x, y: 2 * depth - source.y },
  ];
  const firsts = mirrored.map((image, wall) => {
    const along =
      wall < 2
        ? ((wall === 0 ? 0 : width) - listener.x) / (image.x - listener.x)
        : ((wall === 2 ? 0 : depth) - listener.y) / (image.y - listener.y);
    const way = Math.hypot(image.x - listener.x, image.y - listener.y, rise);
    return {
      x: listener.x + along * (image.x - listener.x),
      y: listener.y + along * (image.y - listener.y),
      ms: (1000 * (way - direct)) / SPEED_OF_SOUND,
    };
  });
  const pull = (id: keyof typeof convolverParams, scale: number): ReturnType<typeof dragEffect> =>
    dragEffect(convolverParams, values, context, id, 'add', scale);
  return {
    kind: 'room',
    width,
    depth,
    height,
    source,
    listener,
    firsts,
    decays: OCTAVES.map((_, octave) => eyringSeconds(room, octave)),
    handles: [
      { label: 'Right wall', x: width, y: depth / 2, pullX: pull('roomWidth', 1), pullY: null },
      { label: 'Back wall', x: width / 2, y: depth, pullX: null, pullY: pull('roomDepth', 1) },
      { label: 'Sound', ...source, pullX: pull('sourceX', 1 / width), pullY: pull('sourceY', 1 / depth) },
      { label: 'You', ...listener, pullX: pull('listenerX', 1 / width), pullY: pull('listenerY', 1 / depth) },
    ],
  };
}
