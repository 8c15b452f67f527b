import { describe, expect, it } from 'vitest';
import { demoMediaOf } from '../../../../../demo/media';
import { plainHatchWorkshop } from '../../../../../demo/plainHatch';
import { assess } from '../../../engines/assess';
import { benchFor } from '../../../engines/benchFor';
import { contextFor } from '../../../engines/context';
import { cardTree } from '../../../engines/machine';
import { rehearse } from '../../../engines/rehearse';
import { write } from '../../../engines/write';
import { judges } from '../../../judges';
import type { Plan } from '../../../plan/plan';
import { rehearsed } from '../../../rehearsals';
import { writers } from '../../../writers';
import { DRIVERS_TV, ladderTiming } from './display';
import { TV_TIMING } from './composite';

const ID = 'ticket-hatch';
const hatch = plainHatchWorkshop.endpoints.find(({ id }) => id === ID)!.plan;
const context = contextFor(judges, plainHatchWorkshop, ID);
const onTube = (board: string, picture: Partial<Plan['picture']>): Plan => ({
	...hatch,
	card: { ...hatch.card, bootStyle: 'cmdline', bootText: 'console=tty1 root=/dev/x rootwait' },
	parts: { ...hatch.parts, board, screen: 'screen-tube', also: [{ part: 'lead-jack4-av', count: 1 }] },
	picture: { ...hatch.picture, edid: '', mode: null, writesEdid: false, hours: null, ...picture }
});
const picturesStops = (plan: Plan) =>
	assess(judges, plan, context).findings.filter(({ id, level }) => level === 'stop' && id.startsWith('picture.'));
const eyeOf = (plan: Plan, change: (line: string) => string = (line) => line) => {
	const card = cardTree(write(writers, plan, context, { mediaBytes: demoMediaOf(plan.sources.items) }));
	const line = card.get('boot/cmdline.txt')!;
	const { tracks } = rehearse({
		links: rehearsed,
		card: new Map(card).set('boot/cmdline.txt', { ...line, text: change(line.text) }),
		bench: benchFor(writers, plan, context),
		startUtcMs: Date.UTC(2026, 10, 26, 10),
		forMs: 150_000
	});
	return tracks.find(({ id }) => id === 'eye')!;
};
const BOTH = { hMinKhz: 15, hMaxKhz: 16, vMinHz: 50, vMaxHz: 60 };

describe('a tube on the yellow socket', () => {
	it('shows its picture in the one mode of the driver, once that is on and the set takes it', () => {
		const plan = onTube('board-full-1', { connector: 'Composite-1', ranges: BOTH });
		expect(picturesStops(plan)).toEqual([]);
		const eye = eyeOf(plan);
		expect(eye.spans.map(({ state }) => state)).toContain('picture');
		expect(eye.marks[0]?.data).toMatchObject({ widthPx: 720, heightPx: 480 });
		// Each by its own source.
		expect(TV_TIMING).toEqual(DRIVERS_TV);
	});
	it('stays dark where nothing forces it on, for its state is unknown', () => {
		const plan = onTube('board-full-1', { connector: 'Composite-1', ranges: BOTH });
		const eye = eyeOf(plan, (line) => line.replace(/ video=\S+/, ''));
		expect(eye.spans.map(({ state }) => state)).not.toContain('picture');
	});
	it.each([
		['picture.connector-other', 'board-full-1', { connector: 'HDMI-A-1', ranges: BOTH }, true],
		['picture.tv-standard', 'board-full-1', { connector: 'Composite-1', ranges: null }, true],
		['picture.composite-off', 'board-full-4', { connector: 'Composite-1', ranges: BOTH }, false]
	] as const)('%s stops what shows nothing, and its fix cures', (id, board, picture, hasFix) => {
		const plan = onTube(board, picture);
		const [stop, ...others] = picturesStops(plan);
		expect([stop?.id, others]).toEqual([id, []]);
		expect(eyeOf(plan).spans.map(({ state }) => state)).not.toContain('picture');
		expect(stop!.fixes.length > 0).toBe(hasFix);
		if (hasFix) expect(eyeOf(stop!.fixes[0]!.apply(plan)).spans.map(({ state }) => state)).toContain('picture');
	});
	it('is no connector for a digital screen', () => {
		const wrong = { ...hatch, picture: { ...hatch.picture, connector: 'Composite-1' } };
		const [stop] = picturesStops(wrong);
		expect(stop?.id).toBe('picture.connector-other');
		expect(picturesStops(stop!.fixes[0]!.apply(wrong))).toEqual([]);
	});
});

it('a ladder’s mode is read from the device tree on the card, and from nothing else', () => {
	const text = `panel-timing {
		clock-frequency = <25175000>; hactive = <640>; hfront-porch = <16>; hsync-len = <96>; hback-porch = <48>;
		vactive = <480>; vfront-porch = <10>; vsync-len = <2>; vback-porch = <33>; hsync-active = <0>; vsync-active = <0>;
	}`;
	expect(ladderTiming(text)).toMatchObject({ pixelClockKhz: 25_175, hTotal: 800, vTotal: 525, vSyncEnd: 492 });
	expect(ladderTiming('panel-timings')).toBeNull();
	for (const lost of ['hactive', 'vactive', 'clock-frequency'])
		expect(ladderTiming(text.replace(`${lost} =`, 'x =')), lost).toBeNull();
});
