<script lang="ts">
	import { keyTypes, ruleFault, ruleOfComputed } from '../../../../core/field';
	import { RuleBox } from '../../../rules';
	import DateLook from '../DateLook.svelte';
	import NumberLook from '../NumberLook.svelte';
	import type { Settings } from '../settings.svelte';

	/** The rule that computes it. */
	let { settings }: { settings: Settings } = $props();

	const field = $derived(settings.field);
	const bench = $derived(settings.bench);
	const plan = $derived(bench.plan);
	const gives = $derived(keyTypes(plan)[field.key]);
</script>

<RuleBox
	{bench}
	label="Rule"
	source={ruleOfComputed(field)}
	check={(source) => ruleFault(plan, field, { at: 'rule', source })}
	offered={(key) => key !== field.key}
	computes={field}
	onchange={(rule) => settings.set('rule', rule)}
/>
{#if gives === undefined || gives === 'number'}<NumberLook {settings} />{/if}
{#if gives === 'date'}<DateLook {settings} />{/if}
