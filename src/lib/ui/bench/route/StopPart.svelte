<script lang="ts">
	import Check from '../../parts/Check.svelte';
	import What from '../../help/What.svelte';
	import { isKnownBefore, type PlanPerson } from '../../../core/packet';
	import { keyTypes } from '../../../core/field';
	import { actorsAt, moved, stopOf } from '../../../core/route';
	import { checkRule, isFault } from '../../../core/rule';
	import type { Bench } from '../bench.svelte';
	import { changeStop } from '../../../core/plan';
	import { WhenPart } from '../../rules';

	/** Where somebody stands on the route, when their stop opens, and when it is done. */
	let { bench, person }: { bench: Bench; person: PlanPerson } = $props();

	const plan = $derived(bench.plan);
	const at = $derived(stopOf(plan, person.id));
	const stop = $derived(plan.stops[at]);
	const alone = $derived((stop?.people.length ?? 1) === 1);
	const last = $derived(plan.stops.length - 1);
	const order = (to: number, how: 'before' | 'beside' = 'before') =>
		bench.change('order', moved(plan, person.id, to, how));
</script>

<fieldset>
	<legend>Order</legend>
	<p class="flex flex-wrap gap-2 pt-1">
		<button class="button" disabled={at === 0 && alone} onclick={() => order(alone ? at - 1 : at)}>Earlier</button>
		<button class="button" disabled={at === last && alone} onclick={() => order(alone ? at + 2 : at + 1)}>Later</button>
		<button class="button" disabled={at === 0} onclick={() => order(at - 1, 'beside')}>Beside the one before</button>
	</p>
</fieldset>
{#if stop}
	{#if actorsAt(plan, at).length > 1}
		<Check
			label="any one of the {actorsAt(plan, at).length} at this stop is enough"
			checked={stop.anyOne ?? false}
			onchange={(on) => bench.change('any one is enough', changeStop(plan, stop.id, { anyOne: on || undefined }))}
		/>
	{/if}
	{#if at > 0}
		<p class="-mb-2 flex items-center gap-1 text-[14px] text-quiet">
			When it opens <What topic="stops by rule" of="stops that open by a rule" />
		</p>
		<WhenPart
			{bench}
			source={stop.when ?? ''}
			title="Stop {at + 1} opens"
			always="always"
			check={(source) => {
				const checked = checkRule(source, keyTypes(plan), 'truth');
				return isFault(checked) ? checked : null;
			}}
			offered={(key) => isKnownBefore(plan, at, key)}
			onchange={(rule) => bench.change('when a stop opens', changeStop(plan, stop.id, { when: rule }), true)}
		/>
	{/if}
{/if}
