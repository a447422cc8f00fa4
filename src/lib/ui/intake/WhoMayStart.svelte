<script lang="ts">
	import type { ComponentProps } from 'svelte';
	import type { Door, Intake } from '../../core/intake';
	import { openRoles, roleName } from '../../core/template';
	import Check from '../parts/Check.svelte';
	import Choice from '../parts/Choice.svelte';
	import Day from '../parts/Day.svelte';
	import Files from '../parts/Files.svelte';
	import OneOf from '../parts/OneOf.svelte';
	import { patient } from '../post';
	import AboutPage from './AboutPage.svelte';
	import Faults from './Faults.svelte';
	import type { Making } from './making.svelte';

	/** Whom a case is about, who may start one, from when to when, and how many. */
	let {
		making,
		people,
		versions,
		onpeople
	}: {
		making: Making;
		/** how many are on the sheet */
		people: number;
		/** of the template, the newest first */
		versions: ComponentProps<typeof AboutPage>['versions'];
		onpeople: () => void;
	} = $props();

	const setting = $derived(making.setting);
	let code = $state('');
	let wrong = $state('');
	const roles = $derived(openRoles(making.template).map((person): [string, string] => [person.id, roleName(person)]));
	const put = (change: Partial<Intake>) => making.set(change);

	function byWhat(by: Door['by']) {
		const doors: Record<Door['by'], Door> = {
			link: { by: 'link' },
			code: { by: 'code', hash: '' },
			domains: { by: 'domains', domains: ['post.example'] },
			sheet: { by: 'sheet' }
		};
		put({ door: doors[by] });
	}
	let taking = $state(false);
	/** What comes back is the list with each one's link, which can't be shown again: it is saved at once. */
	async function take(file: File) {
		taking = true;
		const response = await patient(`/intakes/${making.id}/people`, { method: 'POST', body: file }).catch(() => null);
		taking = false;
		if (!response?.ok) {
			const said = (await response?.json().catch(() => null)) as { say?: string } | null;
			return void (wrong = said?.say ?? 'It did not work. Try it again.');
		}
		wrong = '';
		const list = document.createElement('a');
		list.href = URL.createObjectURL(await response.blob());
		list.download = 'Links.csv';
		list.click();
		setTimeout(() => URL.revokeObjectURL(list.href), 10_000);
		onpeople();
	}
	/** The code is kept as a salted hash only. */
	async function setCode() {
		const response = await patient('/bench/code', {
			method: 'POST',
			headers: { 'Content-Type': 'application/json' },
			body: JSON.stringify({ code })
		}).catch(() => null);
		const said = (await response?.json().catch(() => null)) as { hash?: string; say?: string } | null;
		wrong = said?.hash ? '' : (said?.say ?? 'It did not work. Try it again.');
		if (said?.hash) put({ door: { by: 'code', hash: said.hash } });
		if (said?.hash) code = '';
	}
</script>

<div class="grid max-w-2xl gap-6">
	<AboutPage {making} {versions} />
	<section class="grid gap-3" aria-labelledby="whom">
		<h2 id="whom" class="text-[16px]">Whom a case is about</h2>
		<Choice label="Role" value={setting.starter} options={roles} onchoose={(starter) => put({ starter })} />
		<OneOf
			label="Who starts it"
			bind:value={() => setting.representative, (representative) => put({ representative })}
			options={[
				['no', 'they themselves'],
				['may', 'they, or somebody who prepares it for them'],
				['must', 'always somebody who prepares it for them']
			]}
		/>
		<Faults {making} at="starter" />
		<Faults {making} at="people" />
	</section>
	<section class="grid gap-3" aria-labelledby="door">
		<h2 id="door" class="text-[16px]">Who may start</h2>
		<Choice
			label="Who may start"
			unseen
			value={setting.door.by}
			options={[
				['link', 'anybody with the link'],
				['code', 'whoever knows a code'],
				['domains', 'addresses of certain domains'],
				['sheet', 'people on a sheet, each by a link of their own']
			]}
			onchoose={(by) => byWhat(by as Door['by'])}
		/>
		{#if setting.door.by === 'code'}
			<div class="flex flex-wrap items-end gap-3">
				<label
					>Code {setting.door.hash ? '(one is set)' : ''}<input
						class="input mt-1 font-mono"
						maxlength="40"
						autocomplete="off"
						bind:value={code}
					/></label
				>
				<button type="button" class="button" disabled={code.trim().length < 4} onclick={setCode}>Set the code</button>
			</div>
			<p class="wrong empty:hidden" role="alert">{wrong}</p>
		{:else if setting.door.by === 'domains'}
			<label
				>Domains, a line each<textarea
					class="input mt-1 h-20 font-mono text-[13px]"
					value={setting.door.domains.join('\n')}
					onchange={(event) => {
						const domains = event.currentTarget.value.split(/\s+/).filter(Boolean).slice(0, 50);
						if (domains.length > 0) put({ door: { by: 'domains', domains } });
					}}></textarea></label
			>
		{:else if setting.door.by === 'sheet'}
			<p>
				{people === 0 ? 'Nobody is on it yet.' : people === 1 ? 'One person is on it.' : `${people} people are on it.`}
			</p>
			<div class="grid gap-2">
				<Files
					label="A sheet with names, addresses, and what is known of each by its key"
					accept=".csv,.xlsx"
					takes="CSV or XLSX, 10 MB at most"
					busy={taking ? 'Making the links…' : ''}
					onfiles={([file]) => file && take(file)}
				/>
				<p class="text-[13px] text-quiet">
					What comes back is the same list with each one’s link. It takes the place of the list before.
				</p>
			</div>
			<p class="wrong empty:hidden" role="alert">{wrong}</p>
		{/if}
		<Check
			label="The visitor proves their address by a code before anything is sent to anybody"
			checked={setting.proof}
			onchange={(proof) => put({ proof })}
		/>
		<Faults {making} at="door" />
		<Faults {making} at="proof" />
	</section>
	<section class="grid gap-3" aria-labelledby="when">
		<h2 id="when" class="text-[16px]">When, and how many</h2>
		<div class="grid grid-cols-2 gap-3">
			<Day
				label="First day"
				value={setting.from ?? ''}
				onchoose={(day) => put({ from: day || undefined } as Partial<Intake>)}
			/>
			<Day
				label="Last day"
				value={setting.to ?? ''}
				onchoose={(day) => put({ to: day || undefined } as Partial<Intake>)}
			/>
			<label
				>Closes after so many<input
					class="input mt-1"
					type="number"
					min="1"
					value={setting.most ?? ''}
					onchange={(event) => put({ most: Number(event.currentTarget.value) || undefined } as Partial<Intake>)}
				/></label
			>
			<label
				>In a day from one network address<input
					class="input mt-1"
					type="number"
					min="1"
					max="1000"
					value={setting.perAddress}
					onchange={(event) => put({ perAddress: Math.min(1000, Math.max(1, Number(event.currentTarget.value) || 5)) })}
				/></label
			>
		</div>
		<Faults {making} at="from" />
		<label
			>The sentence while it is closed<input
				class="input mt-1"
				maxlength="500"
				placeholder="This is closed at present."
				value={setting.closed}
				oninput={(event) => put({ closed: event.currentTarget.value })}
			/></label
		>
	</section>
</div>
