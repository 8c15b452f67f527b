import { tellerFor, type Machine } from '../../engines/machine';
import { spawn } from '../../engines/machine/processes';
import { PHONE_PATH, PHONE_PORT, PHONE_UNITS } from './phone';
import { PICTURE_WORDS } from './words';

const ANSWERED_BY = 'yphos-phone@.service';

/** Somebody with a phone: presses a button as a browser would, and plugs the endpoint in again afterwards. */
export function rehearsePhone(machine: Machine): void {
	const tell = tellerFor(machine, 'picture', PICTURE_WORDS);
	machine.on('fault', ({ name, on }) => {
		if (name !== 'phone-shut-down') return;
		if (!on) return machine.mains(true);
		const host = `${machine.disk.read('/etc/hostname')?.trim() ?? ''}.local:${PHONE_PORT}`;
		const request = [
			`POST /shut-down HTTP/1.1`,
			`Host: ${host}`,
			`Origin: http://${host}`,
			'Content-Length: 0',
			'',
			''
		];
		if (!machine.powered || !machine.systemd.isActive(PHONE_UNITS[0]) || !machine.disk.unit(ANSWERED_BY))
			return tell.event('phone-nobody', 'fault');
		tell.event('phone-asked', 'fault');
		spawn(
			machine,
			{ argv: [PHONE_PATH], env: new Map(), stdin: request.join('\r\n'), stdinFile: null, unit: ANSWERED_BY },
			({ out, err }) => {
				const answer = /^HTTP\/1\.1 (\d+ [\w ]+)/.exec(out)?.[1];
				if (answer !== '200 OK') tell.event('phone-refused', 'bad', { answer: answer ?? (err.trim() || 'nothing') });
			}
		);
	});
}
