import { execFileSync, spawnSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { plainHatchWorkshop } from '../../../../../demo/plainHatch';
import { chain } from '../../../chain';
import { contextFor } from '../../../engines/context';
import { derive } from '../../../engines/derive';
import { readXml, type XmlElement } from '../../../formats/xml/tree';
import { programmeBook } from '../../../onAir/book';
import { itemsOf } from '../../../onAir/items';
import { onAirAt } from '../../../onAir/onAir';
import { smilOf } from './smil';

const ID = 'ticket-hatch';
const { plan } = plainHatchWorkshop.endpoints.find(({ id }) => id === ID)!;
const { context } = derive(chain, plan, contextFor(chain, plainHatchWorkshop, ID));
const book = programmeBook(plan.programme, context.venue);
const FROM = Date.parse('2026-11-23T00:00:00Z');
const UNTIL = FROM + 7 * 86_400_000;
const document = smilOf(
	{
		name: 'Hatch <&> "co"',
		book,
		items: (show) => itemsOf(show, plan.programme, context),
		placeOf: ({ location }) => `media/${location}`
	},
	FROM,
	UNTIL
);

describe('a week as SMIL', () => {
	const read = readXml(document);
	const top = read.ok ? read.value : null;
	const [head, body] = top!.children as [XmlElement, XmlElement];
	const [excl] = body.children as [XmlElement];
	const beginsOf = ({ attributes }: XmlElement): number[] =>
		attributes.begin!.split(';').map((value) => Date.parse(/^wallclock\((.*)\)$/.exec(value)![1]!));

	it('is well-formed, whatever a name holds', () => {
		expect(head.children[0]!.attributes.content).toBe('Hatch <&> "co"');
		if (spawnSync('xmllint', ['--version']).status === 0)
			execFileSync('xmllint', ['--noout', '-'], { input: document });
	});

	it('has on what the rules say, at each minute of an hour in three: of its children the last that began', () => {
		for (let at = FROM; at < UNTIL; at += 7 * 60_000) {
			const last = excl.children
				.map((child) => ({ child, at: Math.max(...beginsOf(child).filter((began) => began <= at), -Infinity) }))
				.sort((a, b) => b.at - a.at)[0]!.child;
			const { show } = onAirAt(book, at);
			const wanted = itemsOf(show, plan.programme, context).map(({ location }) => `media/${location}`);
			expect(last.children.map(({ attributes }) => attributes.src)).toEqual(wanted);
		}
	});

	it('gives a film its part', () => {
		const film = { id: 'f', title: 'Film', kind: 'film', location: 'film.mp4', lastsMs: 3500 } as const;
		const of = smilOf(
			{
				name: 'One film',
				book: { lines: [], otherwise: 'all', zone: 'UTC', sun: [] },
				items: () => [{ ...film, part: { fromSec: 1.5, untilSec: 5, quieterDb: 3 } }, film],
				placeOf: ({ location }) => location
			},
			FROM,
			UNTIL
		);
		expect(of).toContain('<video src="film.mp4" title="Film" clipBegin="1.5s" clipEnd="5s" />');
		expect(of).toContain('<video src="film.mp4" title="Film" />');
	});

	it('gives a still its time, and ends with the week', () => {
		const [still] = excl.children.find(({ name }) => name === 'seq')!.children;
		expect([still!.name, still!.attributes.dur]).toEqual(['img', '12s']);
		expect(excl.attributes.end).toBe('wallclock(2026-11-30T00:00:00Z)');
	});
});
