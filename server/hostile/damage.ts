/** Figures from 0 to below 1, in an order that its start fixes. */
export type Random = () => number;

const below = (random: Random, n: number): number => Math.floor(random() * n);

/**
 * A copy of a file with some of it spoiled: bytes changed, mostly near its head; cut off; a piece doubled, removed or
 * blanked; or large numbers put in.
 */
export function damaged(file: Uint8Array, random: Random): Uint8Array {
  let bytes = Buffer.from(file);
  const times = 1 + below(random, 4);
  for (let i = 0; i < times && bytes.length > 8; i += 1) {
    const near = random() < 0.6 ? Math.min(bytes.length, 200) : bytes.length;
    const at = below(random, near);
    const length = 1 + below(random, Math.min(64, bytes.length - at));
    switch (below(random, 7)) {
      case 0:
        bytes[at] = below(random, 256);
        break;
      case 1:
        bytes[at]! ^= 1 << below(random, 8);
        break;
      case 2:
        bytes = Buffer.from(bytes.subarray(0, at));
        break;
      case 3:
        bytes.fill(random() < 0.5 ? 0 : 255, at, at + length);
        break;
      case 4:
        bytes = Buffer.concat([bytes.subarray(0, at), bytes.subarray(at + length)]);
        break;
      case 5:
        bytes = Buffer.concat([bytes.subarray(0, at + length), bytes.subarray(at)]);
        break;
      default:
        if (at + 4 <= bytes.length)
          bytes.writeUInt32LE([0, 1, 0x7fffffff, 0x80000000, 0xffffffff][below(random, 5)]!, at);
    }
  }
  return bytes;
}
