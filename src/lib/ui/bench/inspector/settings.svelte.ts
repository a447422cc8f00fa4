import { changeFields, changeQuestion } from '../../../core/plan';
import { typedDecimal } from '../../decimals';
import type { Bench } from '../bench.svelte';
import type { Field } from '../../../core/packet';

type Value = Field['settings'][string];

/** The settings of one field, as its inspector reads and changes them. Checks hold for all its twins, a button's value for itself. */
export class Settings {
	constructor(
		readonly bench: Bench,
		private readonly of: () => Field
	) {}

	get field(): Field {
		return this.of();
	}
	get(name: string): string | number | boolean | undefined {
		return this.field.settings[name] as string | number | boolean | undefined;
	}
	text(name: string, otherwise = ''): string {
		return String(this.get(name) ?? otherwise);
	}
	/** @param own of this field alone, not of its twins */
	set(name: string, value: Value | undefined, own = false): void {
		const change = (f: Field): Field => {
			const { [name]: _old, ...rest } = f.settings;
			return { ...f, settings: value === undefined || value === '' ? rest : { ...rest, [name]: value } };
		};
		this.bench.change(
			`set ${name}`,
			(own ? changeFields : changeQuestion)(this.bench.plan, [this.field.id], change),
			true
		);
	}
	/** a whole number within bounds, or none */
	count(name: string, input: HTMLInputElement, least: number, most: number): void {
		const value = Math.round(input.valueAsNumber);
		if (input.value === '') this.set(name, undefined);
		else if (value >= least && value <= most) this.set(name, value);
		else input.value = this.text(name);
	}
	decimal(name: string, input: HTMLInputElement): void {
		const text = typedDecimal(input.value);
		if (text !== null) this.set(name, text || undefined);
		else input.value = this.text(name);
	}
}
