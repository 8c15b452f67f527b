import { describe, expect, it } from 'vitest';
import { FAULTS, type Heard, type Span } from './machine';
import { describeRehearsal } from './rehearsalWords';

const span = (fromMs: number, toMs: number, state: Span['state'], why = ''): Span =>
	({ fromMs, toMs, state, why, heard: null }) as unknown as Span;
const heard = { sampleRateHz: 48_000, bitDepth: 16, treatment: 'untouched' } as unknown as Heard;
const first = { atMs: 9000, heard };
const words = (spans: Span[], faultAtMs: number) =>
	describeRehearsal({ spans, first, untilMs: 60_000 }, [{ name: 'power-cut', atMs: faultAtMs, lastsMs: 5000 }])
		.words[0]!;

describe('a rehearsal in words', () => {
	it('says when sound came first and as what, or why none came', () => {
		const run = { spans: [span(0, 9000, 'silence'), span(9000, 60_000, 'sound')], first, untilMs: 60_000 };
		expect(describeRehearsal(run, []).verdict).toMatch(/^Sound after 9\.0\ss: 48\skHz, 16 bit, untouched$/);
		const silent = [span(0, 60_000, 'silence', 'nothing starts the player')];
		expect(describeRehearsal({ spans: silent, first: null, untilMs: 60_000 }, []).verdict).toBe(
			'Silence: nothing starts the player'
		);
		expect(describeRehearsal({ spans: [span(0, 1, 'quiet')], first: null, untilMs: 1 }, []).verdict).toBe(
			'Silence: it is quiet hours'
		);
		expect(describeRehearsal({ spans: [], first: null, untilMs: 1 }, []).verdict).toBe('Silence: nothing happened');
	});
	it('says of a fault how long nothing was heard, and whether it comes back by itself', () => {
		const sound = span(9000, 20_000, 'sound');
		const back = [sound, span(20_000, 34_000, 'silence'), span(34_000, 60_000, 'sound')];
		expect(words(back, 20_000)).toMatch(/nothing is heard for 14(\.0)?\ss; it comes back by itself\.$/);
		const gone = [sound, span(20_000, 60_000, 'silence', 'the card is torn')];
		expect(words(gone, 20_000)).toContain('does not come back within 40');
		expect(words(gone, 20_000)).toContain('(the card is torn)');
		expect(words([span(9000, 60_000, 'sound')], 20_000)).toContain('nobody hears a difference');
		expect(words(back, 2000)).toContain('nothing was sounding yet');
		expect(words(back, 20_000).startsWith(FAULTS['power-cut'].label)).toBe(true);
	});
});
