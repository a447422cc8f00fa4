import type { Spot } from './perspective';

/**
 * One channel of a picture between four of its pixels.
 * @param data so many channels a pixel, row by row
 * @param outside what is there beyond the picture; without it, what is at its edge
 */
export function sampled(
	{ width, height, data }: { width: number; height: number; data: Uint8Array | Uint8ClampedArray },
	{ x, y }: Spot,
	channels: number,
	channel: number,
	outside?: number
): number {
	if (outside !== undefined && (x < -0.5 || y < -0.5 || x >= width - 0.5 || y >= height - 0.5)) return outside;
	const [u, v] = [Math.min(Math.max(x, 0), width - 1.001), Math.min(Math.max(y, 0), height - 1.001)];
	const [left, top] = [Math.floor(u), Math.floor(v)];
	const [s, t] = [u - left, v - top];
	const right = left + 1 < width ? channels : 0;
	const down = top + 1 < height ? channels * width : 0;
	const from = channels * (top * width + left) + channel;
	return (
		(data[from]! * (1 - s) + data[from + right]! * s) * (1 - t) +
		(data[from + down]! * (1 - s) + data[from + down + right]! * s) * t
	);
}
