/** One line of the bench: what was measured, against a bound measured in the same run. */
export interface Figure {
	name: string;
	value: number;
	unit: string;
	/** what the bound is, in words, and its value in the same unit */
	bound: { what: string; value: number };
	ratio: number;
	/** the most that the ratio, or the value where the goal is one of time, may be; null where none is set */
	goal: string | null;
	holds: boolean | null;
}

export function figure(
	name: string,
	value: number,
	unit: string,
	bound: Figure['bound'],
	goal: { ratio?: number; value?: number } = {}
): Figure {
	const ratio = value / bound.value;
	const goals = [
		...(goal.ratio === undefined ? [] : [`ratio ≤ ${goal.ratio}`]),
		...(goal.value === undefined ? [] : [`≤ ${goal.value} ${unit}`])
	];
	const holds = (goal.ratio === undefined || ratio <= goal.ratio) && (goal.value === undefined || value <= goal.value);
	return {
		name,
		value: round(value),
		unit,
		bound: { what: bound.what, value: round(bound.value) },
		ratio: round(ratio),
		goal: goals.length > 0 ? goals.join(' and ') : null,
		holds: goals.length > 0 ? holds : null
	};
}

/** Median time in ms of several runs, after one that warms up. */
export async function median(runs: number, run: (i: number) => unknown): Promise<number> {
	await run(-1);
	const times: number[] = [];
	for (let i = 0; i < runs; i++) {
		const start = performance.now();
		await run(i);
		times.push(performance.now() - start);
	}
	return percentile(times, 50);
}

export function percentile(times: number[], p: number): number {
	const sorted = [...times].sort((a, b) => a - b);
	return sorted[Math.min(sorted.length - 1, Math.floor((p / 100) * sorted.length))]!;
}

export function table(figures: Figure[]): string {
	const rows = [
		['what', 'measured', 'bound', 'ratio', 'goal', 'holds'],
		...figures.map((f) => [
			f.name,
			`${f.value} ${f.unit}`,
			`${f.bound.value} ${f.unit} (${f.bound.what})`,
			String(f.ratio),
			f.goal ?? '',
			f.holds === null ? '' : f.holds ? 'yes' : 'NO'
		])
	];
	const line = (row: string[]) => `| ${row.join(' | ')} |`;
	return [line(rows[0]!), line(rows[0]!.map(() => '---')), ...rows.slice(1).map(line)].join('\n');
}

function round(n: number): number {
	return n >= 100 ? Math.round(n) : Math.round(n * 100) / 100;
}
