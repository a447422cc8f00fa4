<script lang="ts">
	import { DELIVERIES, isPhone, isTexted, LOCALES, type DeliveryWay, type PlanPerson } from '../../core/packet';
	import { roleName } from '../../core/template';
	import { LANGUAGES } from '../../words/words';
	import type { Bench } from './bench.svelte';
	import type { SetPerson } from './edits';

	/** How somebody hears that it is their turn, in which language, and what only they read. */
	let { bench, person, set }: { bench: Bench; person: PlanPerson; set: SetPerson } = $props();

	const WAY_NAMES: Record<DeliveryWay, string> = {
		mail: 'by mail',
		'mail and text': 'by mail and text message',
		text: 'by text message only',
		link: 'I hand on the link myself',
		'in person': 'in front of a host'
	};
	const names = new Intl.DisplayNames('en-GB', { type: 'language' });
	const hosts = $derived(bench.plan.people.filter((p) => p.duty === 'hosts' && p.id !== person.id));
	const phone = $derived(person.phone ?? '');
	const spoken = (locale: string) => (LANGUAGES as readonly string[]).includes(locale.split('-')[0]!);
</script>

<label
	>Hears of it<select
		id="person-deliver"
		class="input mt-1"
		value={person.deliver ?? 'mail'}
		onchange={(e) => {
			const way = e.currentTarget.value as DeliveryWay;
			set(
				'how they are reached',
				{
					deliver: way === 'mail' ? undefined : way,
					hostedBy: way === 'in person' ? (person.hostedBy ?? hosts[0]?.id) : undefined
				},
				false
			);
		}}
		>{#each DELIVERIES as way (way)}
			{#if way !== 'in person' || (person.duty !== 'hosts' && person.duty !== 'gets a copy')}<option value={way}
					>{WAY_NAMES[way]}</option
				>{/if}
		{/each}</select
	></label
>
{#if person.deliver === 'in person'}
	<label
		>Hosted by<select
			class="input mt-1"
			value={person.hostedBy ?? ''}
			onchange={(e) => set('who hosts them', { hostedBy: e.currentTarget.value || undefined }, false)}
			><option value="">{hosts.length === 0 ? 'nobody hosts yet: give somebody that duty' : 'choose'}</option>
			{#each hosts as host (host.id)}<option value={host.id}>{host.name || roleName(host)}</option>{/each}</select
		></label
	>
{/if}
{#if isTexted(person) || phone !== ''}
	<label
		>Telephone <span class="text-quiet">with its country code</span><input
			id="person-phone"
			class="input mt-1"
			type="tel"
			maxlength="40"
			autocomplete="off"
			readonly={bench.isPersonLocked(person.id, 'address')}
			placeholder="+44 7700 900123"
			value={phone}
			oninput={(e) => set('telephone', { phone: e.currentTarget.value })}
		/></label
	>
	{#if phone !== '' && !isPhone(phone)}<p class="wrong -mt-2">That can’t be a telephone number yet.</p>{/if}
{/if}
<label
	>Language of their page and letters<select
		class="input mt-1"
		value={person.locale ?? ''}
		onchange={(e) => set('language', { locale: (e.currentTarget.value || undefined) as PlanPerson['locale'] }, false)}
		><option value="">what their browser asks for</option>
		{#each LOCALES as locale (locale)}<option value={locale}
				>{names.of(locale)}{spoken(locale) ? '' : ', page in English'}</option
			>{/each}</select
	></label
>
<label
	>Note for {person.name || roleName(person)} alone<textarea
		class="input mt-1 h-16"
		maxlength="4000"
		value={person.note ?? ''}
		oninput={(e) => set('note', { note: e.currentTarget.value })}></textarea></label
>
