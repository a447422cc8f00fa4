<script lang="ts">
	import { parseDate, type DateValue } from '@internationalized/date';
	import CalendarDays from '@lucide/svelte/icons/calendar-days';
	import ChevronLeft from '@lucide/svelte/icons/chevron-left';
	import ChevronRight from '@lucide/svelte/icons/chevron-right';
	import { DatePicker } from 'bits-ui';
	import { FLOATS, overOf } from './over';

	/**
	 * A day, typed part by part in the order of the reader's language, or taken from a calendar that begins its weeks as there.
	 * Within a form it goes along under `name`, as ISO 8601.
	 */
	let {
		label,
		unseen = false,
		value,
		least,
		name,
		locale = 'en-GB',
		required = false,
		large = false,
		invalid = false,
		onchoose
	}: {
		label: string;
		unseen?: boolean;
		/** ISO 8601, '' for none */
		value: string;
		/** the first day that may be taken */
		least?: string;
		name?: string;
		locale?: string;
		required?: boolean;
		/** for fingers, as on the signing page */
		large?: boolean;
		invalid?: boolean;
		onchoose?: (day: string) => void;
	} = $props();

	const read = (day: string): DateValue | undefined => {
		try {
			return day === '' ? undefined : parseDate(day);
		} catch {
			return undefined;
		}
	};
	let held = $derived(value);
	const uid = $props.id();
	let button = $state<HTMLElement | null>(null);
</script>

<div class="min-w-0">
	{#if name}<input type="hidden" {name} value={held} />{/if}
	<DatePicker.Root
		value={read(held)}
		onValueChange={(day) => {
			const next = day?.toString() ?? '';
			if (next === held) return;
			held = next;
			onchoose?.(next);
		}}
		minValue={least ? read(least) : undefined}
		{locale}
		{required}
		weekdayFormat="short"
		fixedWeeks
	>
		<DatePicker.Label id="{uid}-label" class={unseen ? 'unseen' : 'block pb-1'}>{label}</DatePicker.Label>
		<div
			class="input flex items-center gap-2 {large ? 'min-h-[44px]! text-[16px]' : ''}"
			aria-invalid={invalid || undefined}
		>
			<DatePicker.Input class="flex flex-1 items-center" aria-labelledby="{uid}-label">
				{#snippet children({ segments })}
					{#each segments as { part, value: written }, i (i)}
						<DatePicker.Segment
							{part}
							class={part === 'literal'
								? 'text-quiet'
								: 'rounded-sm px-0.5 focus:bg-wash aria-[valuetext=Empty]:text-quiet'}>{written}</DatePicker.Segment
						>
					{/each}
				{/snippet}
			</DatePicker.Input>
			<DatePicker.Trigger
				bind:ref={button}
				class="plain -my-1.5 inline-flex size-7 items-center justify-center"
				aria-label="Calendar: {label}"
			>
				<CalendarDays size={16} aria-hidden="true" />
			</DatePicker.Trigger>
		</div>
		<DatePicker.Portal to={overOf(button)}>
			<DatePicker.Content sideOffset={6} collisionPadding={8} class="z-[60] p-3 {FLOATS}">
				<DatePicker.Calendar>
					{#snippet children({ months, weekdays })}
						<DatePicker.Header class="flex items-center justify-between pb-2">
							<DatePicker.PrevButton class="plain size-8"
								><ChevronLeft size={16} aria-hidden="true" /></DatePicker.PrevButton
							>
							<DatePicker.Heading class="font-semibold" />
							<DatePicker.NextButton class="plain size-8"
								><ChevronRight size={16} aria-hidden="true" /></DatePicker.NextButton
							>
						</DatePicker.Header>
						{#each months as month (month.value.toString())}
							<DatePicker.Grid class="border-collapse">
								<DatePicker.GridHead>
									<DatePicker.GridRow>
										{#each weekdays as weekday, i (i)}<DatePicker.HeadCell
												class="size-8 text-center text-[13px] font-normal text-quiet"
												>{weekday.slice(0, 2)}</DatePicker.HeadCell
											>{/each}
									</DatePicker.GridRow>
								</DatePicker.GridHead>
								<DatePicker.GridBody>
									{#each month.weeks as week, w (w)}
										<DatePicker.GridRow>
											{#each week as date (date.toString())}
												<DatePicker.Cell {date} month={month.value} class="p-0 text-center">
													<DatePicker.Day
														class="inline-flex size-8 cursor-pointer items-center justify-center rounded-sm tabular-nums hover:bg-wash data-disabled:cursor-default data-disabled:text-quiet data-[unavailable]:line-through data-outside-month:opacity-50 data-selected:bg-thread data-selected:text-on-thread data-today:font-bold data-today:underline"
													/>
												</DatePicker.Cell>
											{/each}
										</DatePicker.GridRow>
									{/each}
								</DatePicker.GridBody>
							</DatePicker.Grid>
						{/each}
					{/snippet}
				</DatePicker.Calendar>
			</DatePicker.Content>
		</DatePicker.Portal>
	</DatePicker.Root>
</div>
