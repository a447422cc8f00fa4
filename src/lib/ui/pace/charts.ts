import type { ChartConfiguration } from 'chart.js';
import { BAD_ENDS, ENDED, lengthInWords, type ComingDay, type Course, type EndStep } from '../../core/pace';
import { datesIn } from '../../core/intl';
import { hatch, type Hatch } from '../parts/chart/hatch';

/** How the answers of Pace are drawn. */

type Colour = (name: string) => string;
const FONT = '13px "Atkinson Hyperlegible Next", sans-serif';

const common = { animation: false as const, maintainAspectRatio: false, events: [] as never[] };

const days = (colour: Colour, most: number) => ({
	type: 'linear' as const,
	min: 0,
	max: most,
	title: { display: true, text: 'days', color: colour('--quiet') },
	// the last one may lie close to the one before
	ticks: { color: colour('--quiet'), maxTicksLimit: 9, includeBounds: false },
	grid: { display: false }
});

const shares = (colour: Colour, most: number) => ({
	min: 0,
	max: most,
	ticks: {
		color: colour('--quiet'),
		maxTicksLimit: 5,
		callback: (value: string | number) => `${Math.round(Number(value) * 100)} %`
	},
	grid: { color: colour('--hairline') }
});

/** As steps: from where it stands to where it changes. */
const steps = (of: readonly EndStep[], value: (step: EndStep) => number, most: number) => {
	const points = of.filter((step) => step.days <= most).map((step) => ({ x: step.days, y: value(step) }));
	const last = points.at(-1)?.y ?? 0;
	return [{ x: 0, y: 0 }, ...points, { x: most, y: last }];
};

const line = (colour: string, data: { x: number; y: number }[], more: object = {}) => ({
	data,
	borderColor: colour,
	backgroundColor: 'transparent',
	borderWidth: 2,
	pointRadius: 0,
	stepped: 'before' as const,
	...more
});

/** So far the records reach, or so far that all but the last few are seen. */
function reach(...courses: Course[]): number {
	const ends = courses.flatMap(({ done, nine }) => [nine.days === null ? 0 : nine.days * 1.4, done.at(-1)?.days ?? 0]);
	const longest = Math.max(1, ...courses.flatMap(({ done }) => done.at(-1)?.days ?? 0));
	return Math.min(longest, Math.max(...ends.filter((end) => end > 0), 1)) * 1.05;
}

/** The share that is done after so many days, now as a whole line with its bounds, before as a broken one, unless too few ended then. */
export const howLongChart =
	(now: Course, before: Course) =>
	(colour: Colour): ChartConfiguration => {
		const most = Math.ceil(before.few ? reach(now) : reach(now, before));
		const thread = colour('--thread');
		return {
			type: 'line',
			data: {
				datasets: [
					line(
						thread,
						steps(now.done, (step) => step.share, most)
					),
					line(
						'transparent',
						steps(now.done, (step) => step.low, most)
					),
					line(
						'transparent',
						steps(now.done, (step) => step.high, most),
						{
							fill: '-1',
							backgroundColor: hatch('diagonal', colour('--hollow'))
						}
					),
					...(!before.few
						? [
								line(
									colour('--quiet'),
									steps(before.done, (step) => step.share, most),
									{ borderDash: [3, 4], borderWidth: 1.5 }
								)
							]
						: [])
				]
			},
			options: {
				...common,
				parsing: false,
				scales: { x: days(colour, most), y: shares(colour, 1) }
			}
		};
	};

/** Bars with a number at each, one hatch. */
export const barsChart =
	(bars: readonly { name: string; days: number; look: Hatch; more?: string }[]) =>
	(colour: Colour): ChartConfiguration => ({
		type: 'bar',
		data: {
			labels: bars.map(({ name }) => short(name)),
			datasets: [
				{
					data: bars.map((bar) => bar.days),
					backgroundColor: bars.map(({ look }) => hatch(look, colour('--thread'))) as string[],
					borderColor: colour('--thread'),
					borderWidth: 1,
					barThickness: 14
				}
			]
		},
		options: {
			...common,
			indexAxis: 'y',
			layout: { padding: { right: bars.some(({ more }) => more) ? 170 : 70 } },
			scales: {
				x: { beginAtZero: true, display: false },
				y: { ticks: { color: colour('--ink') }, grid: { display: false } }
			}
		},
		plugins: [numbers(colour, (i) => [lengthInWords(bars[i]!.days), bars[i]!.more].filter(Boolean).join(', '))]
	});

/** What ended otherwise, as lines of their own kind. */
export const badlyChart =
	(now: Course) =>
	(colour: Colour): ChartConfiguration => {
		const most = Math.ceil(Math.max(1, ...BAD_ENDS.flatMap((end) => now.ended[end].at(-1)?.days ?? 0)) * 1.1);
		const top = Math.max(0.05, ...BAD_ENDS.map((end) => now.ends[end].share)) * 1.25;
		const LOOKS: Record<string, [string, number[]]> = {
			declined: ['--brick', []],
			expired: ['--copper', [7, 4]],
			withdrawn: ['--quiet', [2, 3]]
		};
		return {
			type: 'line',
			data: {
				datasets: BAD_ENDS.filter((end) => now.ended[end].length > 0).map((end) => ({
					...line(
						colour(LOOKS[end]![0]),
						steps(now.ended[end], (step) => step.share, most),
						{
							borderDash: LOOKS[end]![1]
						}
					),
					label: ENDED[end]
				}))
			},
			options: {
				...common,
				parsing: false,
				layout: { padding: { right: 84 } },
				scales: { x: days(colour, most), y: shares(colour, Math.min(1, top)) }
			},
			plugins: [atEnd(colour)]
		};
	};

export const comingChart =
	(coming: readonly ComingDay[]) =>
	(colour: Colour): ChartConfiguration => ({
		type: 'bar',
		data: {
			labels: coming.map(({ day }) =>
				datesIn('en-GB', { day: 'numeric', month: 'short', timeZone: 'UTC' }).format(new Date(day))
			),
			datasets: [
				{
					data: coming.map(({ n }) => n),
					backgroundColor: hatch('across', colour('--moss')) as string,
					borderColor: colour('--moss'),
					borderWidth: 1
				}
			]
		},
		options: {
			...common,
			scales: {
				x: { ticks: { color: colour('--quiet'), maxRotation: 0, autoSkipPadding: 12 }, grid: { display: false } },
				y: {
					beginAtZero: true,
					ticks: { color: colour('--quiet'), maxTicksLimit: 5 },
					grid: { color: colour('--hairline') }
				}
			}
		}
	});

const short = (name: string): string => (name.length > 34 ? `${name.slice(0, 33)}…` : name);

interface Drawing {
	ctx: CanvasRenderingContext2D;
	data: { datasets: { label?: string }[] };
	getDatasetMeta: (i: number) => { data: { x: number; y: number }[] };
}

/** Ready to write words beside what is drawn. */
function pen({ ctx }: Drawing, colour: Colour): CanvasRenderingContext2D {
	ctx.fillStyle = colour('--ink');
	ctx.textBaseline = 'middle';
	ctx.font = FONT;
	return ctx;
}

/** The number at the end of each bar. */
function numbers(colour: Colour, words: (i: number) => string) {
	return {
		id: 'numbers',
		afterDatasetsDraw(chart: Drawing) {
			const ctx = pen(chart, colour);
			chart.getDatasetMeta(0).data.forEach(({ x, y }, i) => ctx.fillText(words(i), x + 6, y));
		}
	};
}

/** The name of each line where it ends, a line's height apart. */
function atEnd(colour: Colour) {
	return {
		id: 'at end',
		afterDatasetsDraw(chart: Drawing) {
			const ctx = pen(chart, colour);
			const at = chart.data.datasets
				.map(({ label = '' }, i) => ({ label, point: chart.getDatasetMeta(i).data.at(-1)! }))
				.sort((a, b) => b.point.y - a.point.y);
			let below = Infinity;
			for (const { label, point } of at) {
				below = Math.min(point.y, below - 15);
				ctx.fillText(label, point.x + 6, below);
			}
		}
	};
}
