import { fail, redirect } from '@sveltejs/kit';
import { dayIn, isoDay } from '$lib/core/calendar';
import { isRefusal, type Refusal } from '$lib/core/refusal';
import { house } from '$lib/server';
import { formIn } from '$lib/server/forms';
import {
	casesOf,
	codeAsSvg,
	leftAt,
	peopleOn,
	putIntakeInUse,
	readIntake,
	rowCounts,
	setIntakeState,
	takeOver,
	templatePlan,
	throwIntakeAway,
	versionOf
} from '$lib/server/intakes';
import { organisation } from '$lib/server/settings';
import { listTemplates, versionsOf } from '$lib/server/templates';
import { accountIn, orError, statusOf } from '$lib/server/web';

export const load = async ({ params, locals }) => {
	const account = accountIn(locals);
	const intake = orError(readIntake(house(), params.id));
	const template = orError(templatePlan(house(), intake, intake.setting.version));
	const address = `${house().config.origin}/i/${intake.slug}`;
	const { zone } = organisation(house().db);
	return {
		intake,
		plan: template.plan,
		template: template.title,
		versions: versionsOf(house(), intake.template)
			.slice(0, 100)
			.map(({ version, at, note }) => ({ version, day: dayIn(zone, at), note })),
		today: isoDay(zone, house().now().toISOString()),
		now: house().now().toISOString(),
		address,
		code: await codeAsSvg(address),
		used: versionOf(house(), intake.id, intake.version),
		people: peopleOn(house(), intake.id),
		cases: casesOf(house(), account, intake.id),
		left: leftAt(house(), intake.id),
		rows: rowCounts(house(), intake),
		templates: listTemplates(house(), account, { show: 'all', most: 200 })
			.filter(({ version }) => version > 0)
			.map(({ id, title }) => ({ id, title }))
	};
};

const told = (no: Refusal | null) => (no ? fail(statusOf(no), { say: no.say, at: no.at ?? '' }) : { done: true });

export const actions = {
	use: async ({ params, locals, request }) => {
		const revision = Number((await formIn(request)).text('revision'));
		const used = putIntakeInUse(house(), accountIn(locals), params.id, revision);
		return told(isRefusal(used) ? used : null);
	},
	close: ({ params }) => told(setIntakeState(house(), params.id, 'closed')),
	open: ({ params }) => told(setIntakeState(house(), params.id, 'open')),
	throw: ({ params }) => {
		const no = throwIntakeAway(house(), params.id);
		if (no) return told(no);
		redirect(303, '/intakes');
	},
	take: async ({ params, locals, request }) => {
		const taken = takeOver(house(), accountIn(locals), params.id, (await formIn(request)).text('case'));
		if (isRefusal(taken)) return told(taken);
		redirect(303, taken.to);
	}
};
