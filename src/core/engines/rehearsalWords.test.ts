import { describe, expect, it } from 'vitest';
import { earTrack, type describeHeard } from '../links/sound/track';
import { POWER_FAULTS } from '../links/power/faults';
import { powerTrack } from '../links/power/track';
import type { Said, Span } from './machine';
import { describeFault } from './rehearsalWords';

const because = (code: string): Said => ({ from: 'test', code, data: undefined });
const span = (fromMs: number, toMs: number, state: string, why = ''): Span => ({
	fromMs,
	toMs,
	state,
	why: because(why)
});
const say = ({ code }: Said): string => code;
const heard = { sampleRateHz: 48_000, bitDepth: 16, treatment: 'untouched' } as Parameters<typeof describeHeard>[0];
const first = { atMs: 9000, name: 'a', data: heard };
const words = (spans: Span[], atMs: number) =>
	describeFault(
		[
			{ kind: earTrack, spans, untilMs: 60_000, say },
			{
				kind: powerTrack,
				spans: [span(0, 20_000, 'on'), span(20_000, 23_000, 'off'), span(23_000, 60_000, 'on')],
				untilMs: 60_000,
				say
			}
		],
		{ name: 'power-cut', atMs, lastsMs: 5000 },
		POWER_FAULTS['power-cut']
	);

describe('a rehearsal in words', () => {
	it('says when sound came first and as what, or why none came', () => {
		const verdict = (spans: Span[], marks: (typeof first)[] = []) => earTrack.verdict({ spans, marks }, say);
		expect(verdict([span(0, 9000, 'silence'), span(9000, 60_000, 'sound')], [first])).toMatchObject({
			good: true,
			words: expect.stringMatching(/^Sound after 9\.0\ss: 48\skHz, 16 bit, untouched$/)
		});
		expect(verdict([span(0, 60_000, 'silence', 'nothing starts the player')])).toEqual({
			good: false,
			words: 'Silence: nothing starts the player'
		});
		expect(verdict([span(0, 1, 'quiet', 'nothing is on')])?.words).toBe('Silence: nothing is on');
		expect(verdict([])?.words).toBe('Silence: nothing happened');
	});
	it('says of a fault how long nothing was heard, and whether it comes back by itself', () => {
		const sound = span(9000, 20_000, 'sound');
		const back = [sound, span(20_000, 34_000, 'silence'), span(34_000, 60_000, 'sound')];
		expect(words(back, 20_000)).toMatch(
			/nothing is heard for 14(\.0)?\ss, then it comes back by itself; it is without power for 3\.0\ss, then it comes back by itself\.$/
		);
		const gone = [sound, span(20_000, 60_000, 'silence', 'the card is torn')];
		expect(words(gone, 20_000)).toMatch(/nothing is heard for the remaining 40(\.0)?\ss \(the card is torn\)/);
		expect(words([span(9000, 60_000, 'sound')], 30_000)).toMatch(/: nobody notices a difference\.$/);
		expect(words(back, 2000)).toMatch(/not yet at work then; it comes 9\.0\ss after/);
		expect(words([span(0, 60_000, 'silence')], 2000)).toContain('nothing is heard from the beginning to the end');
		expect(words(back, 20_000).startsWith(POWER_FAULTS['power-cut'].label)).toBe(true);
	});
	it('says of power how often it failed, and for ever only when it does', () => {
		const verdict = (spans: Span[]) => powerTrack.verdict({ spans, marks: [] }, say);
		expect(verdict([span(0, 9, 'on')])).toEqual({ good: true, words: 'Enough power throughout' });
		expect(verdict([span(0, 9, 'on'), span(9, 2009, 'brown-out'), span(2009, 9000, 'on')])?.words).toMatch(
			/^Too little voltage once, 2\.0\ss in all$/
		);
		expect(verdict([span(0, 9, 'brown-out', 'too-little')])).toEqual({ good: false, words: 'Power fails: too-little' });
	});
});
