<script lang="ts">
	import Leaf from '../parts/Leaf.svelte';
	import Suggested, { among } from '../parts/Suggested.svelte';
	import Check from '../parts/Check.svelte';
	import More from '../parts/More.svelte';
	import Files from '../parts/Files.svelte';
	import Choice from '../parts/Choice.svelte';
	import { enhance } from '$app/forms';
	import { keepFilled } from '../forms';
	import type { Snippet } from 'svelte';
	import { courseInWords } from '../../core/pace';
	import type { Plan } from '../../core/packet';
	import { roleName } from '../../core/template';
	import PagePicture from '../pages/PagePicture.svelte';
	import type { Stumbles, TemplateCourse } from '../../server/pace';
	import StumblesList from './StumblesList.svelte';
	import UsualCourse from './UsualCourse.svelte';

	/** One template beside the list: its pages, who does what, what its users may change, and what can be done with it. */
	let {
		chosen,
		offices,
		folders,
		say,
		versions
	}: {
		chosen: {
			id: string;
			owner: string;
			title: string;
			description: string;
			folder: string;
			shared: string;
			accounts: string[];
			version: number;
			binned: boolean;
			mayChange: boolean;
			plan: Plan | null;
			versions: { version: number }[];
			course: TemplateCourse;
			stumbles: Stumbles[];
		};
		offices: { id: string; name: string }[];
		folders: string[];
		say: string;
		versions: Snippet;
	} = $props();
	let sheet = $state<HTMLFormElement>();

	let shared = $derived(chosen.shared);
	/** every page of its documents, as they lie behind one another */
	const pages = $derived(
		chosen.plan?.papers.flatMap((paper) => paper.pages.map((page, number) => ({ paper, page, number }))) ?? []
	);
	const id = $derived(chosen.id);
	/** another template begins at its first page */
	let at = $derived.by(() => (id ? 1 : 0));
	const seen = $derived(pages[Math.min(at, pages.length) - 1]);
</script>

<aside aria-label="Template" class="w-full border-l border-hairline bg-linen px-5 py-5 min-[900px]:w-[372px]">
	<h2 class="text-[17px]">{chosen.title}</h2>
	<p class="pb-3 text-quiet">{chosen.description || 'No description yet.'}</p>
	<p class="wrong pb-2 empty:hidden" role="alert">{say}</p>
	<div class="flex flex-wrap items-center gap-2 pb-4">
		{#if chosen.binned}
			{#if chosen.mayChange}<form method="POST" action="?/restore&id={chosen.id}" use:enhance>
					<input type="hidden" name="id" value={chosen.id} /><button class="button">Take out of the bin</button>
				</form>{/if}
		{:else}
			{#if chosen.version > 0}
				<a class="button primary" href="/templates/{chosen.id}/use">Use</a>
				<form bind:this={sheet} method="POST" action="/templates/{chosen.id}/sheet" enctype="multipart/form-data">
					<Files
						label="From a sheet…"
						compact
						name="sheet"
						accept=".xlsx,.xlsm,.csv,text/csv"
						onfiles={() => sheet?.requestSubmit()}
					/>
				</form>
				<a class="button" href="/templates/{chosen.id}/sheet" download>A sheet to fill in</a>
			{/if}
			{#if chosen.mayChange}
				<form method="POST" action="?/change">
					<input type="hidden" name="id" value={chosen.id} /><button class="button">Change</button>
				</form>
			{/if}
			<form method="POST" action="?/duplicate">
				<input type="hidden" name="id" value={chosen.id} /><button class="button">Duplicate</button>
			</form>
			{#if chosen.mayChange}
				<form method="POST" action="?/bin" use:enhance>
					<input type="hidden" name="id" value={chosen.id} /><button class="button grave">Bin</button>
				</form>
			{/if}
		{/if}
	</div>
	{#if chosen.plan}
		<div class="flex gap-4 pb-4">
			{#if seen}
				{@const { paper, page, number } = seen}
				<div class="shrink-0">
					<div class="border border-hairline">
						{#key `${paper.digest} ${number}`}
							<PagePicture
								url="/papers/{paper.digest}"
								{number}
								{page}
								scale={120 / (page.rotate % 180 === 0 ? page.width : page.height)}
								label="{paper.name}, page {number + 1}"
							/>
						{/key}
					</div>
					{#if pages.length > 1}<div class="pt-1"><Leaf of={pages.length} bind:page={at} /></div>{/if}
				</div>
			{/if}
			<div class="min-w-0">
				<p class="pb-1 text-[14px] text-quiet">
					{chosen.plan.papers.length === 1 ? '1 document' : `${chosen.plan.papers.length} documents`}, {pages.length}
					{pages.length === 1 ? 'page' : 'pages'}, {chosen.plan.fields.length} fields
				</p>
				<ol class="pl-1.5 text-[14px]">
					{#each chosen.plan.stops as stop, i (stop.id)}
						<li class="relative pb-1.5 pl-4 {i < chosen.plan.stops.length - 1 ? 'border-l-2 border-line' : ''}">
							<span
								class="absolute top-1.5 size-2.5 rounded-full border-2 border-line bg-linen {i <
								chosen.plan.stops.length - 1
									? '-left-1.5'
									: '-left-1'}"
								aria-hidden="true"
							></span>
							{#each chosen.plan.people.filter((p) => stop.people.includes(p.id)) as person (person.id)}
								{@const usual = chosen.course.places[person.id]}
								<p>
									<b>{roleName(person)}</b>
									{person.duty}{person.optional ? ', may be left out' : ''}{person.role && person.name
										? `: ${person.name}`
										: ''}
									{#if usual && usual.n > 0}<span class="text-quiet">· {courseInWords(usual)}</span>{/if}
								</p>
							{/each}
						</li>
					{/each}
				</ol>
			</div>
		</div>
	{:else}
		<p class="pb-4 text-quiet">
			Not in use yet: it is being made. “Change” goes on with it, “Put in use” there ends it.
		</p>
	{/if}
	{#if chosen.plan}<UsualCourse course={chosen.course} id={chosen.id} />{/if}
	{#if chosen.stumbles.length > 0}<StumblesList stumbles={chosen.stumbles} />{/if}
	{#if chosen.mayChange}
		<div class="border-t border-hairline py-2">
			<More label="Description, folder, who may use it" look="font-semibold">
				<form method="POST" action="?/describe&id={chosen.id}" class="grid gap-3 pt-2" use:enhance={keepFilled}>
					<input type="hidden" name="id" value={chosen.id} />
					<label
						>Description<textarea class="input mt-1 h-20" name="description" maxlength="1000" value={chosen.description}
						></textarea></label
					>
					<Suggested label="Folder" name="folder" most={80} value={chosen.folder} offered={among(folders)} />
					<Choice
						label="Who may use it"
						name="shared"
						value={shared}
						options={[
							['owner', 'only me'],
							['chosen', 'people I choose'],
							['office', 'the whole office']
						]}
						onchoose={(who) => (shared = who)}
					/>
					{#if shared === 'chosen'}
						<fieldset>
							<legend class="unseen">Chosen people</legend>
							{#each offices as one (one.id)}
								<p class="py-1">
									<Check label={one.name} name="account" value={one.id} checked={chosen.accounts.includes(one.id)} />
								</p>
							{:else}<p class="text-quiet">There is nobody else in this office who prepares packets.</p>{/each}
						</fieldset>
					{/if}
					{#if offices.length > 0}
						<Choice
							label="Belongs to"
							name="owner"
							value={chosen.owner}
							options={[
								[chosen.owner, 'whom it belongs to now'],
								...offices.filter((one) => one.id !== chosen.owner).map(({ id, name }): [string, string] => [id, name])
							]}
						/>
					{/if}
					<p><button class="button">Keep</button></p>
				</form>
			</More>
		</div>
	{/if}
	{#if chosen.versions.length > 0}
		<div class="border-t border-hairline py-2">
			<More label={`Versions, ${chosen.versions.length}`} look="font-semibold">
				<ol class="pt-1">{@render versions()}</ol>
			</More>
		</div>
	{/if}
</aside>
