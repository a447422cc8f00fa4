/** Grey values from 0 to 255, row by row from the top left. */
export interface Grey {
	width: number;
	height: number;
	data: Uint8Array | Uint8ClampedArray;
}

/** Pixels in RGBA, row by row from the top left. */
export interface Pixels {
	width: number;
	height: number;
	data: Uint8Array | Uint8ClampedArray;
}

/** `0.299 R + 0.587 G + 0.114 B` (ITU-R BT.601), of pixels in RGBA. */
export function greyOf(rgba: Uint8Array | Uint8ClampedArray, width: number, height: number): Grey {
	const data = new Uint8Array(width * height);
	for (let i = 0; i < data.length; i++)
		data[i] = Math.round(0.299 * rgba[4 * i]! + 0.587 * rgba[4 * i + 1]! + 0.114 * rgba[4 * i + 2]!);
	return { width, height, data };
}

/** Made smaller by whole averages, to a width at most. */
export function smaller(grey: Grey, width: number): Grey {
	if (grey.width <= width) return grey;
	const scale = grey.width / width;
	const height = Math.max(1, Math.round(grey.height / scale));
	const data = new Uint8Array(width * height);
	for (let y = 0; y < height; y++) {
		const [top, bottom] = [
			Math.floor(y * scale),
			Math.min(grey.height, Math.max(Math.floor((y + 1) * scale), Math.floor(y * scale) + 1))
		];
		for (let x = 0; x < width; x++) {
			const [left, right] = [Math.floor(x * scale), Math.min(grey.width, Math.floor((x + 1) * scale))];
			let sum = 0;
			for (let v = top; v < bottom; v++) for (let u = left; u < right; u++) sum += grey.data[v * grey.width + u]!;
			data[y * width + x] = Math.round(sum / ((bottom - top) * (right - left)));
		}
	}
	return { width, height, data };
}

export const mean = ({ data }: Grey): number => {
	let sum = 0;
	for (const value of data) sum += value;
	return data.length === 0 ? 0 : sum / data.length;
};

/** The variance of the Laplacian (4-neighbourhood): low where nothing has an edge. */
export function sharpness({ width, height, data }: Grey): number {
	let [sum, squares, n] = [0, 0, 0];
	for (let y = 1; y < height - 1; y++)
		for (let x = 1; x < width - 1; x++) {
			const at = y * width + x;
			const value = data[at - 1]! + data[at + 1]! + data[at - width]! + data[at + width]! - 4 * data[at]!;
			sum += value;
			squares += value * value;
			n++;
		}
	return n === 0 ? 0 : squares / n - (sum / n) ** 2;
}
