import type { DocumentKind, IdentityWay, KnownQuestion, Side } from './asked';
import type { Check, CheckName, Verdict } from './checks';
import type { PictureFault } from './picture';

/** What somebody still has to show of themselves, and what came of it so far, as their page has it. */
export interface IdentityToShow {
	ways: IdentityWay[];
	/** one of the ways will do */
	either: boolean;
	kinds: DocumentKind[];
	/** by kind: the pictures that are wanted */
	sides: Partial<Record<DocumentKind, Side[]>>;
	/** pictures that are there already, with what is wrong with each */
	taken: { side: Side; faults: PictureFault[] }[];
	asks: Pick<KnownQuestion, 'id' | 'ask' | 'as'>[];
	left: Record<IdentityWay, number>;
	/** the desk is looking */
	looking: boolean;
	/** why the last pictures were not enough: which checks it lay at, never what was measured; null where they were, or none came */
	last: { verdict: Verdict; checks: CheckName[] } | null;
	/** what the office has said to them */
	word: string;
}

/** One try as it is looked at. */
export interface LookedAt {
	id: string;
	kind: string;
	at: string;
	deleted: boolean;
	verdict: Verdict | null;
	checks: Check[];
	pictures: { side: Side; digest: string }[];
}

export interface IdentityLook {
	packet: string;
	title: string;
	reference: string;
	zone: string;
	person: { id: string; name: string; email: string };
	held: boolean;
	/** newest first */
	tries: LookedAt[];
	/** answers given to questions, each: how many of how many were right */
	answered: { at: string; right: number; of: number }[];
	/** who has judged already, where two must agree */
	agreed: { name: string; how: 'another try' | 'let through' | 'refuse' }[];
	judges: number;
	/** why this account can't judge; '' where it can */
	mayNot: string;
}
