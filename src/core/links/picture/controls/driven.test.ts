import { describe, expect, it } from 'vitest';
import { plainHatchWorkshop as demoWorkshop } from '../../../../../demo/plainHatch';
import { chain } from '../../../chain';
import { judges } from '../../../judges';
import { writers } from '../../../writers';
import { assess } from '../../../engines/assess';
import { contextFor } from '../../../engines/context';
import { runSheet } from '../../../engines/runSheet';
import { write } from '../../../engines/write';
import type { Plan } from '../../../plan/plan';
import { receivedAt, sendCommand } from '../../sources/streams/receive';
import { clashesIn, type Control } from './controls';
import { computeDelay, totalMs } from '../delay';

const planOf = (id: string): Plan => demoWorkshop.endpoints.find((endpoint) => endpoint.id === id)!.plan;
const textOf = (id: string, plan: Plan, end: string): string => {
	const file = write(writers, plan, contextFor(chain, demoWorkshop, id)).find(({ path }) => path.endsWith(end));
	return file && 'lines' in file ? file.lines.map(({ text }) => text).join('\n') : '';
};
const idsOf = (id: string, plan: Plan): string[] =>
	assess(judges, plan, contextFor(chain, demoWorkshop, id)).findings.map((finding) => finding.id);
const hatch = planOf('ticket-hatch');
const withControls = (controls: Control[]): Plan => ({ ...hatch, picture: { ...hatch.picture, controls } });

describe('keys and remotes', () => {
	const next: Control = { action: 'next', by: 'remote', key: 'KEY_RIGHT', scancode: '0x10' };
	it('are written for who hears them, the remote\u2019s codes too, and on a card to lay beside the set', () => {
		const plan = withControls([next]);
		expect(textOf('ticket-hatch', plan, 'keys/yphos.conf')).toBe('KEY_RIGHT 1 /opt/yphos/bin/control.sh next');
		expect(textOf('ticket-hatch', plan, 'rc_keymaps/yphos.toml')).toContain('0x10 = "KEY_RIGHT"');
		expect(textOf('ticket-hatch', plan, 'yphos-keys.service')).toContain('ExecStartPre=-/usr/bin/ir-keytable');
		expect(textOf('ticket-hatch', plan, 'mpv.conf')).toContain('input-ipc-server=/var/lib/yphos/player.sock');
		expect(textOf('ticket-hatch', plan, 'docs/controls.html')).toContain('<b>next</b>');
		expect(textOf('ticket-hatch', withControls([]), 'yphos-keys.service')).toBe('');
	});
	it('that ask for two things, have no code, or move a volume that is not there are found', () => {
		const controls: Control[] = [
			next,
			{ ...next, action: 'pause', scancode: '' },
			{ ...next, action: 'louder', key: 'KEY_UP' }
		];
		expect(clashesIn(controls)).toEqual([{ key: 'KEY_RIGHT', actions: ['next', 'pause'] }]);
		const ids = idsOf('ticket-hatch', withControls(controls));
		for (const id of ['picture.clash-KEY_RIGHT', 'picture.remote-unlearned', 'picture.volume-of-nothing'])
			expect(ids).toContain(id);
	});
});

describe('a second screen', () => {
	const gallery = planOf('gallery-wall');
	it('lets in what is sent, from near alone, and says what to run', () => {
		expect(textOf('gallery-wall', gallery, 'nftables.conf')).toContain('ip saddr @near4 udp dport 5600 accept');
		expect(textOf('gallery-wall', gallery, 'mpv.conf')).toContain('profile=low-latency');
		const step = runSheet(writers, gallery, contextFor(chain, demoWorkshop, 'gallery-wall'))
			.flatMap(({ steps }) => steps)
			.find(({ id }) => id.endsWith('send-screen'));
		expect(step?.command).toBe(sendCommand('Linux', 'gallery.local', 5600));
	});
	it.each([
		['udp://0.0.0.0:5600', 5600],
		['udp://@:1234?x=1', 1234],
		['rtp://:5004', 5004],
		['udp://192.168.1.4:5600', null],
		['http://radio.example:8000', null],
		['udp://0.0.0.0:0', null]
	])('%s waits at %s', (location, port) => expect(receivedAt(location)).toBe(port));
	it('is late by its shares together, and later over Wi-Fi', () => {
		const question = { framesPerSec: 30, refreshHz: 60, bitsPerSec: 8e6, linkBps: 94e6, wired: true, setMs: 10 };
		const wired = computeDelay(question);
		expect(totalMs(wired)).toBeCloseTo(
			wired.reduce((sum, { ms }) => sum + ms, 0),
			9
		);
		expect(totalMs(computeDelay({ ...question, wired: false, linkBps: 30e6 }))).toBeGreaterThan(totalMs(wired));
		expect(idsOf('gallery-wall', { ...gallery, network: { ...gallery.network, way: 'radio' } })).toContain(
			'picture.by-radio'
		);
	});
});
