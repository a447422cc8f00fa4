/** Hatches for charts, as the weaves of people are: told apart without colour. */
export const HATCHES = ['diagonal', 'dots', 'across', 'plain'] as const;
export type Hatch = (typeof HATCHES)[number];

/** A pattern to fill with, in that ink on nothing. */
export function hatch(kind: Hatch, ink: string): CanvasPattern | string {
	if (kind === 'plain') return ink;
	const tile = document.createElement('canvas');
	tile.width = tile.height = 8;
	const pen = tile.getContext('2d')!;
	pen.strokeStyle = pen.fillStyle = ink;
	pen.lineWidth = 1.6;
	if (kind === 'dots')
		for (const [x, y] of [
			[2, 2],
			[6, 6]
		] as const)
			pen.fillRect(x - 1, y - 1, 2, 2);
	else {
		const lines =
			kind === 'across'
				? [
						[0, 2, 8, 2],
						[0, 6, 8, 6]
					]
				: [
						[-2, 2, 2, -2],
						[0, 8, 8, 0],
						[6, 10, 10, 6]
					];
		for (const [x1, y1, x2, y2] of lines) {
			pen.beginPath();
			pen.moveTo(x1!, y1!);
			pen.lineTo(x2!, y2!);
			pen.stroke();
		}
	}
	return pen.createPattern(tile, 'repeat') ?? ink;
}
