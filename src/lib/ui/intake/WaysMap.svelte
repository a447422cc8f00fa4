<script lang="ts">
	import { DOCUMENT, SHUT, type IntakePage, type Ways } from '../../core/intake';

	/** All ways through, drawn from the top: pages one under the other, each way a thread beside them, those that turn back or end nowhere in brick. */
	let { pages, ways }: { pages: IntakePage[]; ways: Ways } = $props();

	const STEP = 46;
	const LEFT = 16;
	const order = $derived(['', ...pages.map(({ id }) => id), DOCUMENT, SHUT]);
	const shutComes = $derived(ways.steps.some(({ to }) => to === SHUT));
	const place = $derived(new Map(order.map((id, i) => [id, 18 + i * STEP])));
	const title = (id: string) =>
		id === ''
			? 'Start'
			: id === DOCUMENT
				? 'The document'
				: id === SHUT
					? 'Closed by a rule'
					: pages.find((page) => page.id === id)?.title || 'A page';
	const tone = (id: string) =>
		ways.circles.includes(id) || ways.endless.includes(id) ? 'bad' : ways.unreached.includes(id) ? 'lost' : '';
	/** a way to the next is a straight line, one that jumps an arc at the left, the wider the further */
	function drawn({ from, to }: { from: string; to: string }): string {
		const [a, b] = [place.get(from)!, place.get(to)!];
		const far = Math.abs(order.indexOf(to) - order.indexOf(from));
		if (far === 1 && b > a) return `M${LEFT + 90} ${a + 7}V${b - 7}`;
		const out = Math.min(70, 12 + far * 9);
		return `M${LEFT + 84} ${a}C${LEFT + 84 - out} ${a} ${LEFT + 84 - out} ${b} ${LEFT + 84} ${b}`;
	}
	const rows = $derived(order.filter((id) => id !== SHUT || shutComes));
	const most = $derived(Math.max(1, ...ways.steps.map(({ times }) => times)));
</script>

<figure>
	<figcaption class="pb-2 text-[14px] text-quiet">
		{ways.tried === 1 ? 'One way was tried' : `${ways.tried.toLocaleString('en-GB')} ways were tried`}{ways.all
			? ', with every answer that the rules tell apart.'
			: ', drawn evenly from more than can all be tried.'}
	</figcaption>
	<svg width="100%" height={rows.length * STEP + 6} viewBox="0 0 320 {rows.length * STEP + 6}" aria-hidden="true">
		{#each ways.steps as step (step.from + ' ' + step.to)}
			<path
				d={drawn(step)}
				class="step {order.indexOf(step.to) <= order.indexOf(step.from) || step.to === SHUT ? 'bad' : ''}"
				stroke-width={1.2 + (2.6 * step.times) / most}
			/>
		{/each}
		{#each rows as id (id)}
			<circle
				cx={LEFT + 90}
				cy={place.get(id)}
				r="6"
				class="stop {tone(id)} {id === '' || id === DOCUMENT ? 'end' : ''}"
			/>
			<text x={LEFT + 106} y={place.get(id)! + 5} class={tone(id)}>{title(id).slice(0, 26)}</text>
		{/each}
	</svg>
	<ul class="unseen">
		{#each ways.steps as { from, to, times } (from + ' ' + to)}<li>
				From {title(from)} to {title(to)}: {times} of {ways.tried}
			</li>{/each}
	</ul>
</figure>

<style>
	.step {
		fill: none;
		stroke: var(--thread);
	}
	.step.bad {
		stroke: var(--brick);
		stroke-dasharray: 4 3;
	}
	.stop {
		fill: var(--sheet);
		stroke: var(--thread);
		stroke-width: 2;
	}
	.stop.end {
		fill: var(--thread);
	}
	.stop.bad {
		stroke: var(--brick);
	}
	.stop.lost {
		stroke: var(--hollow);
		stroke-dasharray: 2 3;
	}
	text {
		fill: var(--ink);
		font-size: 14px;
	}
	text.lost {
		fill: var(--quiet);
	}
	text.bad {
		fill: var(--brick);
	}
</style>
