import { Type, type Static } from '@sinclair/typebox';
import { addPapers, addPerson, attach, changePerson, isMarkerKnown, markerFields } from '../../../core/plan';
import { emptyPlan, isAddress, preflight, type Plan } from '../../../core/packet';
import { shownPage } from '../../../core/page';
import { isRefusal, refuse, type Refusal } from '../../../core/refusal';
import { Line } from '../../../core/schema';
import { heldBy } from '../../access';
import type { Account } from '../../accounts';
import { inTransaction } from '../../db';
import type { House } from '../../house';
import { binDraft } from '../../packets/draft-bin';
import { CHANGED, newDraft, NO_DRAFT, readDraft, type Draft } from '../../packets/drafts';
import { sendDraft, trimmed } from '../../packets/sending';
import { addPaper, looksOf, readingOf, type TakenPaper } from '../../papers';
import { saveBench } from '../../templates';
import { operation, Revised } from '../operation';
import { strict } from '../schemas';
import { Document, Done, DONE, DraftShape, NewDraft, Sent } from '../shapes';

const of = { part: 'draft', kind: 'draft', doing: 'change' } as const;
const MB = 1024 * 1024;

function planFrom({ title, people, days, subject, message }: Static<typeof NewDraft>): Plan | Refusal {
	let plan: Plan = {
		...emptyPlan(),
		title,
		...(days !== undefined && { days }),
		...(subject && { subject }),
		...(message !== undefined && { message })
	};
	for (const [i, { name, email, role, duty = 'signs', language }] of people.entries()) {
		if (!isAddress(email)) return refuse('bad-address', `“${email}” can't be an e-mail address.`, `people.${i}.email`);
		const added = addPerson(plan);
		plan = changePerson(added.plan, added.person, { name, email, role, duty, locale: language });
	}
	return plan;
}

const told = (house: House, draft: Draft): Revised<Static<typeof DraftShape>> =>
	new Revised(
		{
			id: draft.id,
			title: draft.plan.title,
			savedAt: draft.savedAt,
			plan: draft.plan,
			open: preflight(trimmed(draft.plan), undefined, (digest) => looksOf(house, digest)?.unlike ?? [])
				.filter((finding) => !finding.mild)
				.map(({ say }) => say)
		},
		draft.revision
	);

/** Adds a document to a draft that may have been saved meanwhile; markers in it become fields. */
async function withDocument(
	house: House,
	account: Account,
	id: string,
	taken: TakenPaper
): Promise<{ draft: Draft; fields: number } | Refusal> {
	const reading = await readingOf(house, taken.digest);
	return inTransaction(house.db, () => {
		const draft = readDraft(house, id);
		if (!draft) return NO_DRAFT;
		const { digest, name, pages, shaded } = taken;
		const plan = addPapers(draft.plan, [{ digest, name, pages, ...(shaded && { shaded }) }]);
		const paper = plan.papers.at(-1)!;
		const found = markerFields(plan, paper, (n) => (reading ? shownPage(reading, n, paper.pages[n]!) : null));
		const fields = found.filter(isMarkerKnown).map((one) => one.field);
		const saved = saveBench(house, account, id, draft.revision, { ...plan, fields: [...plan.fields, ...fields] });
		return isRefusal(saved) ? saved : { draft: saved, fields: fields.length };
	});
}

export const drafts = [
	operation({
		method: 'post',
		path: '/drafts',
		right: 'prepare',
		does: 'Begin a draft: its title and its people, one after the other',
		body: NewDraft,
		gives: DraftShape,
		status: 201,
		revised: true,
		do: ({ house, account, body }) => {
			const plan = planFrom(body);
			return isRefusal(plan) ? plan : told(house, newDraft(house, account, plan));
		}
	}),
	operation({
		method: 'get',
		path: '/drafts/{draft}',
		right: 'prepare',
		of,
		does: 'A draft, and what stands between it and sending',
		gives: DraftShape,
		revised: true,
		do: ({ house, part }) => {
			const draft = readDraft(house, part['draft']!);
			return draft ? told(house, draft) : NO_DRAFT;
		}
	}),
	operation({
		method: 'put',
		path: '/drafts/{draft}',
		right: 'prepare',
		of,
		does: 'Save its plan',
		more: 'Wants the ETag that was read as If-Match, so that nobody’s change is lost.',
		body: Type.Object({ plan: Type.Unknown() }, strict),
		gives: DraftShape,
		revised: true,
		do: ({ house, account, part, body, revision }) => {
			const saved = saveBench(house, account, part['draft']!, revision!, body.plan);
			return isRefusal(saved) ? saved : told(house, saved);
		}
	}),
	operation({
		method: 'delete',
		path: '/drafts/{draft}',
		right: 'prepare',
		of,
		does: 'Put it into the bin',
		gives: Done,
		do: ({ house, account, part }) => {
			const no = binDraft(house, account, part['draft']!);
			if (isRefusal(no)) return no;
			return DONE;
		}
	}),
	operation({
		method: 'post',
		path: '/drafts/{draft}/documents',
		right: 'prepare',
		of,
		does: 'Add a document: PDF, Word or a picture',
		more: 'Markers such as ::maren.signature:: become fields of the person whose role or name they call.',
		query: Type.Object({ name: Line(200) }, strict),
		file: { most: 50 * MB, takes: ['application/pdf', 'application/octet-stream'] },
		gives: Document,
		status: 201,
		do: async ({ house, account, part, query, body }) => {
			const id = part['draft']!;
			if (!readDraft(house, id)) return NO_DRAFT;
			const taken = heldBy(house.db, id, await addPaper(house, query.name, body));
			if (isRefusal(taken)) return taken;
			if ('attached' in taken) {
				const now = readDraft(house, id);
				if (!now) return NO_DRAFT;
				const saved = saveBench(house, account, id, now.revision, attach(now.plan, taken));
				if (isRefusal(saved)) return saved;
				return { digest: taken.digest, name: taken.name, pages: 0, attached: true, fields: 0, notes: [taken.why] };
			}
			const added = await withDocument(house, account, id, taken);
			if (isRefusal(added)) return added;
			const { digest, name, pages, notes, stripped } = taken;
			return {
				digest,
				name,
				pages: pages.length,
				attached: false,
				fields: added.fields,
				notes: [...notes, ...stripped]
			};
		}
	}),
	operation({
		method: 'post',
		path: '/drafts/{draft}/send',
		right: 'send',
		of,
		does: 'Send it',
		more: 'With If-Match only as it was read.',
		gives: Sent,
		status: 201,
		do: ({ house, account, part, revision }) => {
			const draft = readDraft(house, part['draft']!);
			if (!draft) return NO_DRAFT;
			if (revision !== null && revision !== draft.revision) return CHANGED;
			const sent = sendDraft(house, account, draft.id, draft.revision);
			return isRefusal(sent) ? sent : { id: sent.packet, reference: sent.reference };
		}
	})
];
