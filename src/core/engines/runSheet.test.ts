import { describe, expect, it } from 'vitest';
import { demoWorkshop } from '../../../demo/workshop';
import { chain } from '../chain';
import { writers } from '../writers';
import { WISHES } from '../link/wish';
import { emptyPlan, type Plan } from '../plan/plan';
import { contextFor } from './context';
import { runSheet, type SheetStep } from './runSheet';

/**
 * What holds at the bench, told apart from what the steps say of themselves: what each kind of step needs, makes and ends.
 * It is gone through from the first step to the last as a person would, for every demo endpoint and every kind of new one.
 */
interface Truth {
	readonly needs?: readonly string[];
	readonly makes?: readonly string[];
	readonly ends?: readonly string[];
}
const TRUTH: readonly (readonly [RegExp, Truth])[] = [
	[/^card\.get-set$/, { makes: ['set'] }],
	[/^card\.check-image$/, { makes: ['image'] }],
	[/^card\.format-card$/, { needs: ['image'], ends: ['written'] }],
	[/^card\.write-image$/, { needs: ['image'], makes: ['written', 'in computer'] }],
	// Its last command lets go of the card.
	[/^card\.read-back$/, { needs: ['written', 'in computer'], makes: ['compared'], ends: ['in computer'] }],
	[/^card\.card-again$/, { needs: ['compared'], makes: ['in computer'] }],
	[/^card\.copy-set$/, { needs: ['set', 'compared', 'in computer'], makes: ['copied'] }],
	[/^sound\.name-converter$/, { needs: ['copied', 'in computer'] }],
	[/^card\.take-out$/, { needs: ['in computer'], ends: ['in computer'], makes: ['card in hand'] }],
	[/^heat\.pad$/, { needs: ['no static'] }],
	[/^parts\.join$/, { makes: ['no static'] }],
	[/^header\.fit-header$/, { needs: ['no static'], makes: ['header'] }],
	[/^heat\.spacers$/, { needs: ['no static'], makes: ['box'] }],
	[/^card\.insert-card$/, { needs: ['compared', 'no static'], makes: ['in board'] }],
	[/^parts\.joint-/, { needs: ['no static', 'in board'], makes: ['leads'] }],
	[/^sound\.amplifier-down$/, { makes: ['silent'] }],
	[/^power\.power-last$/, { needs: ['in board', 'no static'], makes: ['power'] }],
	[/^(network\.(find-it|log-in|reserve|hotspot-.*|screen-answers)|card\.(grow|apply))$/, { needs: ['power'] }],
	[/^network\.log-in$/, { makes: ['prompt'] }],
	[/^card\.apply$/, { makes: ['applied'] }],
	[/^card\.verify$/, { needs: ['applied', 'restarted'] }],
	[/^sources\.open-below$/, { needs: ['restarted'] }],
	[/^sources\.copy-media$/, { needs: ['restarted'] }],
	[/^chain\.restart-set up$/, { makes: ['restarted'] }],
	[/^sound\.amplifier-on$/, { needs: ['restarted', 'silent'], makes: ['loud'], ends: ['silent'] }],
	[/^sound\.first-sound$/, { needs: ['restarted'], makes: ['heard'] }],
	[/^(brief\.pull-plug|heat\.read-heat|sound\.rate-light|card\.right-output)$/, { needs: ['heard'] }],
	[/^header\.clock-set$/, { needs: ['restarted', 'network'] }],
	[/^card\.borrow-cable$/, { makes: ['network'] }],
	[/^card\.cable-goes$/, { ends: ['network', 'prompt', 'power'], makes: ['power'] }]
];

const wentThrough = (plan: Plan, steps: readonly SheetStep[]): string[] => {
	const holds = new Set<string>(plan.network.way === 'none' ? [] : ['network']);
	const wrong: string[] = [];
	for (const { key, command, do: what } of steps) {
		// What is typed there needs a prompt: only what is typed on one's own computer does not.
		const typedThere =
			command !== undefined &&
			!/^(ssh|ping|sftp|smbclient|showmount|ffmpeg) /.test(command) &&
			!/screen and keyboard joined again/.test(what);
		const truths = TRUTH.filter(([pattern]) => pattern.test(key)).map(([, truth]) => truth);
		const needs = [
			...truths.flatMap((truth) => truth.needs ?? []),
			...(typedThere && plan.card.system === 'plain' ? ['prompt'] : [])
		].filter((need) => (need !== 'prompt' || plan.network.user !== '') && (need !== 'heard' || plan.sound.used));
		for (const need of needs) if (!holds.has(need)) wrong.push(`${key} needs "${need}"`);
		for (const { ends = [] } of truths) for (const end of ends) holds.delete(end);
		for (const { makes = [] } of truths) for (const made of makes) holds.add(made);
	}
	return wrong;
};
const stepsOf = (plan: Plan, id: string): SheetStep[] =>
	runSheet(writers, plan, contextFor(chain, demoWorkshop, id)).flatMap(({ steps }) => [...steps]);

const { id: loungeId, plan: lounge } = demoWorkshop.endpoints[0]!;
const network = (change: Partial<Plan['network']>): Plan => ({ ...lounge, network: { ...lounge.network, ...change } });
const plans: readonly (readonly [string, Plan])[] = [
	...demoWorkshop.endpoints.map(({ id, plan }) => [id, plan] as const),
	...WISHES.map((kind) => [`new ${kind}`, emptyPlan('Hall', 'hall', kind)] as const),
	['without a network', network({ way: 'none' })],
	['set up at a screen', network({ school: 'screen' })],
	['by its own hotspot', network({ school: 'hotspot', way: 'radio', ssid: 'x' })],
	['at a reserved address', network({ address: { kind: 'reserved', ip: '192.168.40.9' } })],
	['with a converter that nothing names', { ...lounge, parts: { ...lounge.parts, converter: 'conv-header-small' } }],
	['formatted first', { ...lounge, card: { ...lounge.card, prepare: 'format' } }],
	[
		'an amplifier on the header, with a clock and no network',
		{
			...network({ way: 'none' }),
			parts: {
				...lounge.parts,
				converter: 'conv-header-amp',
				amplifier: null,
				also: [...lounge.parts.also, { part: 'clock-i2c', count: 1 }, { part: 'supply-12-5', count: 1 }]
			}
		}
	]
];

describe('the run sheet of', () => {
	it.each(plans)('%s can be done in its order, from the first step to the last', (_, plan) =>
		expect(wentThrough(plan, stepsOf(plan, loungeId))).toEqual([])
	);
	it.each(plans)('%s never needs what only a later step makes', (_, plan) => {
		const steps = stepsOf(plan, loungeId);
		const late = steps.flatMap((step, n) =>
			(step.needs ?? []).flatMap((need) =>
				steps
					.slice(n + 1)
					.filter(({ makes }) => makes?.includes(need))
					.map((other) => `${step.key} needs "${need}", which ${other.key} makes`)
			)
		);
		expect(late).toEqual([]);
	});
	it.each(plans.filter(([, { sound, parts }]) => sound.used && parts.amplifier))(
		'%s turns the amplifier down before power comes, and switches it on at the end',
		(_, plan) => {
			const keys = stepsOf(plan, loungeId).map(({ key }) => key);
			const order = ['sound.amplifier-down', 'power.power-last', 'sound.amplifier-on', 'sound.first-sound'];
			expect(keys.filter((key) => order.includes(key))).toEqual(order);
		}
	);
	it('measures a supply before it is joined, but one with a USB-C plug only where something asks for power', () => {
		const phaseOf = (supply: string): string | undefined => {
			const plan = { ...lounge, parts: { ...lounge.parts, supply } };
			return stepsOf(plan, loungeId).find(({ key }) => key === 'power.measure-supply')?.phase;
		};
		expect(phaseOf('supply-5-2a5')).toBe('assemble');
		expect(phaseOf('supply-5-3')).toBe('first start');
	});
	it('says red to red at the speakers, and never to join two wires of a bridged amplifier', () => {
		const plan = (amplifier: string): Plan => ({ ...lounge, parts: { ...lounge.parts, amplifier } });
		const at = (amplifier: string) =>
			stepsOf(plan(amplifier), loungeId).find(({ do: what }) => /Red to red/.test(what));
		expect(at('amp-old')?.caution).toMatch(/short circuit/);
		expect(at('amp-old')?.caution).not.toMatch(/driven/);
		expect(at('amp-digital')?.caution).toMatch(/never join any two/);
	});
});
