<script lang="ts">
	import { courseInWords, differs } from '../../core/pace';
	import type { TemplateCourse } from '../../server/pace';

	/** How long a template usually takes, and whether a change of it has made it quicker. */
	let { course, id }: { course: TemplateCourse; id: string } = $props();

	const [newest, before] = $derived(course.versions);
</script>

<section aria-labelledby="course" class="border-t border-hairline py-2">
	<h3 id="course" class="font-semibold">Usual course</h3>
	{#if course.whole.n === 0}
		<p class="text-quiet">Nothing has been sent from it yet.</p>
	{:else}
		<p>
			Of {course.whole.n} sent, {courseInWords(course.whole)}.
			<a class="underline" href="/pace?template={id}">More in Pace</a>
		</p>
		{#if newest && before}
			<p class="text-quiet">
				Version {newest.version}: {courseInWords(newest.course)}; version {before.version}: {courseInWords(
					before.course
				)}.
				{#if !newest.course.few && !before.course.few}{differs(newest.course.half, before.course.half)
						? 'That is more than chance.'
						: 'That can be chance.'}{/if}
			</p>
		{/if}
	{/if}
</section>
